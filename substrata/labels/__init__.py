"""What the print on a pack means: panels read, checked and turned into composition; files of products."""
