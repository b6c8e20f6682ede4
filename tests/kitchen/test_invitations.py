import re
from datetime import timedelta
from email import message_from_bytes, policy

import pytest
from allauth.account.models import EmailAddress
from django.core.mail import EmailMessage
from django.utils import timezone

from kitchen.accounts import mail
from kitchen.errors import Forbidden, NotFound, Refused
from kitchen.models import AuditRow, Invitation, Kitchen, Letter, Membership
from kitchen.services import closing, history, invitations, kitchens
from kitchen.services.access import membership

pytestmark = pytest.mark.django_db


@pytest.fixture
def key(mailoutbox):
    """What the link of the last letter ends in."""
    return lambda: re.search(r"/invitation/(\S+)", mailoutbox[-1].body)[1]


def proved(user):
    EmailAddress.objects.create(user=user, email=user.email, primary=True, verified=True)
    return user


def test_nobody_is_in_a_kitchen_before_they_accept(people, kitchen, key, mailoutbox):
    invitations.invite(membership(people["owner"], kitchen.pk), " Outsider@Kitchen.test", "baker")
    assert mailoutbox[0].to == ["outsider@kitchen.test"]
    assert not Membership.objects.filter(user=people["outsider"], kitchen=kitchen).exists()
    assert not Invitation.objects.filter(key_hash__contains=key()).exists(), "the key itself is kept nowhere"
    member = invitations.accept(proved(people["outsider"]), key())
    assert (member.kitchen, member.role) == (kitchen, "baker")
    with pytest.raises(NotFound, match="no longer valid"):
        invitations.accept(people["outsider"], key())


def test_an_invitation_is_for_the_address_it_was_written_to_once_it_is_proved(people, kitchen, key):
    invitations.invite(membership(people["owner"], kitchen.pk), "outsider@kitchen.test", "baker")
    with pytest.raises(Forbidden, match="for somebody else") as wrong:
        invitations.accept(proved(people["baker"]), key())
    assert "o…@kitchen.test" in wrong.value.allowed
    with pytest.raises(Forbidden):
        invitations.accept(people["outsider"], key())
    invitations.accept(proved(people["outsider"]), key())


def test_an_invitation_ends_when_taken_back_run_out_or_sent_anew(people, kitchen, key):
    person = proved(people["outsider"])
    row = invitations.invite(membership(people["owner"], kitchen.pk), person.email, "baker")
    first = key()
    assert invitations.invite(membership(people["owner"], kitchen.pk), person.email, "viewer").pk == row.pk
    again = key()
    assert first != again
    Invitation.objects.update(valid_until=timezone.now() - timedelta(seconds=1))
    invitations.invite(membership(people["owner"], kitchen.pk), person.email, "viewer")
    taken_back = key()
    invitations.take_back(membership(people["owner"], kitchen.pk), row.pk)
    for old in (first, again, taken_back, ""):
        with pytest.raises(NotFound):
            invitations.accept(person, old)


@pytest.mark.parametrize("email", ["", "nowhere", "a@b", "x\ny@kitchen.test", "BAKER@kitchen.test"])
def test_an_address_that_cannot_be_asked_is_refused(people, kitchen, mailoutbox, email):
    with pytest.raises(Refused) as refusal:
        invitations.invite(membership(people["owner"], kitchen.pk), email, "baker")
    assert (refusal.value.field, mailoutbox) == ("email", [])


@pytest.mark.parametrize(("who", "error"), [("baker", Forbidden), ("viewer", Forbidden), ("outsider", NotFound)])
def test_only_an_owner_asks_people_in_and_takes_it_back(people, kitchen, who, error):
    row = invitations.invite(membership(people["owner"], kitchen.pk), "new@kitchen.test", "baker")
    for act in (
        lambda: invitations.invite(membership(people[who], kitchen.pk), "other@kitchen.test", "baker"),
        lambda: invitations.take_back(membership(people[who], kitchen.pk), row.pk),
    ):
        with pytest.raises(error):
            act()


def test_a_kitchens_name_in_a_letter_is_text_and_one_line(people, kitchen, mailoutbox):
    Kitchen.objects.filter(pk=kitchen.pk).update(name="Pies & <b>more</b>\nBcc: x@y.test")
    invitations.invite(membership(people["owner"], kitchen.pk), "new@kitchen.test", "baker")
    assert "Pies & <b>more</b>" in mailoutbox[0].body
    assert "\n" not in mailoutbox[0].subject
    assert mailoutbox[0].recipients() == ["new@kitchen.test"]


def test_anyone_may_leave_but_the_last_owner(people, kitchen):
    kitchens.remove_member(membership(people["viewer"], kitchen.pk), people["viewer"].pk)
    with pytest.raises(Forbidden):
        kitchens.remove_member(membership(people["baker"], kitchen.pk), people["owner"].pk)
    for act in (
        lambda: kitchens.remove_member(membership(people["owner"], kitchen.pk), people["owner"].pk),
        lambda: kitchens.change_role(membership(people["owner"], kitchen.pk), people["owner"].pk, "viewer"),
    ):
        with pytest.raises(Refused, match="needs an owner"):
            act()
    kitchens.change_role(membership(people["owner"], kitchen.pk), people["baker"].pk, "owner")
    kitchens.remove_member(membership(people["owner"], kitchen.pk), people["owner"].pk)
    assert [m.user for m in kitchen.memberships.all()] == [people["baker"]]


def test_an_account_waits_until_its_kitchens_have_another_owner(people, kitchen):
    with pytest.raises(Refused, match="would have no owner"):
        closing.close_account(people["owner"], on=True)
    kitchens.change_role(membership(people["owner"], kitchen.pk), people["baker"].pk, "owner")
    closing.close_account(people["owner"], on=True)
    kitchen.refresh_from_db()
    assert kitchen.erased_at is None
    people["owner"].closing.erased_at = timezone.now()
    people["owner"].closing.save()
    assert closing.erase_what_is_due()["people"] == 1
    assert kitchen.memberships.count() == 2


def test_a_kitchen_ends_after_its_days_of_grace_and_only_by_its_name(people, kitchen):
    with pytest.raises(Forbidden):
        closing.close_kitchen(membership(people["baker"], kitchen.pk), on=True, name=kitchen.name)
    with pytest.raises(Refused):
        closing.close_kitchen(membership(people["owner"], kitchen.pk), on=True, name="the corner kitchen")
    closing.close_kitchen(membership(people["owner"], kitchen.pk), on=True, name=kitchen.name)
    assert closing.erase_what_is_due()["kitchens"] == 0
    closing.close_kitchen(membership(people["owner"], kitchen.pk), on=False)
    Kitchen.objects.filter(pk=kitchen.pk, erased_at=None).update(erased_at=timezone.now())
    assert closing.erase_what_is_due()["kitchens"] == 1
    assert Kitchen.objects.count() == 1


def test_the_history_is_the_owners_and_pages(people, kitchen, monkeypatch):
    monkeypatch.setattr(history, "PAGE", 3)
    for n in range(5):
        kitchens.change_settings(membership(people["baker"], kitchen.pk), {"name": f"Kitchen {n}"})
    first = history.kitchen_history(membership(people["owner"], kitchen.pk))
    second = history.kitchen_history(membership(people["owner"], kitchen.pk), first[-1].pk)
    assert [r.detail.get("name") for r in (*first, *second)][:5] == [f"Kitchen {n}" for n in (4, 3, 2, 1, 0)]
    with pytest.raises(Forbidden):
        history.kitchen_history(membership(people["baker"], kitchen.pk))
    AuditRow.objects.update(at=timezone.now() - closing.HISTORY_RETENTION - timedelta(days=1))
    assert closing.erase_what_is_due()["history"] >= 5


def write(settings, **to):
    settings.EMAIL_BACKEND = "kitchen.accounts.mail.Letters"
    EmailMessage("A code", "Grüße: 123", "house@kitchen.test", [to.get("to", "a@b.test")]).send()


def test_a_letter_waits_for_its_carrier_and_its_words_are_forgotten_once_it_is_taken(settings, mailoutbox, monkeypatch):
    settings.MAIL_CARRIER = "django.core.mail.backends.locmem.EmailBackend"
    write(settings)
    assert mailoutbox == []

    def down(*_):
        raise ConnectionRefusedError("no mail server")

    with monkeypatch.context() as broken:
        broken.setattr("django.core.mail.backends.locmem.EmailBackend.send_messages", down)
        assert mail.carry_letters() == 0
    waiting = Letter.objects.get()
    assert (waiting.tries, waiting.trouble, waiting.sent_at) == (1, "no mail server", None)
    assert [mail.carry_letters(), mail.carry_letters()] == [1, 0]
    assert mailoutbox[0].message().get_payload(decode=True).decode().strip() == "Grüße: 123"
    sent = Letter.objects.get()
    assert (bytes(sent.message), sent.trouble) == (b"", "")
    Letter.objects.update(written_at=timezone.now() - mail.RETENTION - timedelta(days=1))
    assert mail.forget_old_letters() == 1


def test_a_letter_that_is_never_taken_is_given_up(settings, monkeypatch):
    write(settings)
    settings.MAIL_CARRIER = "django.core.mail.backends.smtp.EmailBackend"
    settings.EMAIL_HOST, settings.EMAIL_PORT = "127.0.0.1", 9
    for _ in range(mail.MOST_TRIES + 2):
        mail.carry_letters()
    assert Letter.objects.get().tries == mail.MOST_TRIES


def test_the_folder_stands_in_for_a_mail_server(settings, tmp_path, client):
    settings.MAIL_FOLDER = str(tmp_path)
    settings.MAIL_CARRIER = "kitchen.accounts.mail.Folder"
    addresses = [f"a{i}@b.test" for i in range(12)]  # more than fit into one tick of the clock
    for to in addresses:
        write(settings, to=to)
    mail.carry_letters()
    assert [(row["to"], row["text"]) for row in mail.outbox()][::-1] == [(to, "Grüße: 123") for to in addresses]
    file = next(tmp_path.iterdir()).read_bytes()
    assert message_from_bytes(file, policy=policy.default)["Subject"] == "A code"
    settings.OUTBOX_PAGE = False
    assert client.get("/api/outbox").status_code == 404
    settings.OUTBOX_PAGE = True
    assert len(client.get("/api/outbox").json()) == len(addresses)
