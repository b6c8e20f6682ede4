"""What is taken out of a backup: its own files, and nothing beside them."""

import io
import tarfile

import pytest

from ops.keeping import Stopped, _unpacked


def archive(path, *members):
    with tarfile.open(path, "w:gz") as tar:
        for name, kind, link in members:
            member = tarfile.TarInfo(name)
            member.type, member.linkname = kind, link
            data = b"{}" if kind == tarfile.REGTYPE else b""
            member.size = len(data)
            tar.addfile(member, io.BytesIO(data))
    return path


@pytest.mark.parametrize(
    "member",
    [
        ("../beside.txt", tarfile.REGTYPE, ""),
        ("/beside-of-substrata.txt", tarfile.REGTYPE, ""),
        ("outbox/link.eml", tarfile.SYMTYPE, "/etc/passwd"),
        ("outbox/hard.eml", tarfile.LNKTYPE, "../beside.txt"),
        ("device", tarfile.CHRTYPE, ""),
    ],
)
def test_an_archive_that_reaches_beside_its_folder_is_refused(tmp_path, member):
    folder = tmp_path / "in" / "here"
    folder.mkdir(parents=True)
    with pytest.raises(Stopped, match="no backup"):
        _unpacked(archive(tmp_path / "b.tar.gz", member), folder)
    assert [path for path in tmp_path.rglob("*") if path.is_file()] == [tmp_path / "b.tar.gz"]


def test_what_is_no_archive_or_tells_nothing_of_itself_is_refused(tmp_path):
    (tmp_path / "text").write_text("hello")
    for file in (tmp_path / "text", archive(tmp_path / "empty.tar.gz")):
        with pytest.raises(Stopped, match="no backup"):
            _unpacked(file, tmp_path / "here")
