### What every room shares.

list-last = { $most } and { $last }
