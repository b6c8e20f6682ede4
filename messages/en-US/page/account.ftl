### The page: account.

## invitation-view

account-invitation-view-an-owner = An owner
account-invitation-view-invites-to = { $by } invites { $email } to
account-invitation-view-as-the-invitation-is-valid-until = as { $role }. The invitation is valid until { $date_style }.
account-invitation-view-join-kitchen = Join kitchen
account-invitation-view-you-are-signed-in-as-the = You are signed in as { $signed_in }. The invitation is for another address.
account-invitation-view-sign-in-with-the-invited-address = Sign in with the invited address
account-invitation-view-sign-in-to-join = Sign in to join
account-invitation-view-create-account = Create account

## account-view

account-account-view-your-account = Your account
account-account-view-this-account-will-be-deleted-on = This account will be deleted on { $date_style }.
account-account-view-keep-account = Keep account
account-account-view-confirm-your-password = Confirm your password
account-account-view-continue = Continue
account-account-view-cancel = Cancel
account-account-view-signed-in-devices = Signed-in devices
account-account-view-since = { $ip } · since { $created_at }
account-account-view-this-device = this device
account-account-view-sign-out-this-device = Sign out this device
account-account-view-sign-out-all-other-devices = Sign out all other devices
account-account-view-password = Password
account-account-view-current-password = Current password
account-account-view-new-password = New password
account-account-view-change-password = Change password
account-account-view-email-address = Email address
account-account-view-sign-in-with = Sign in with
account-account-view-send-code = Send code
account-account-view-the-code-sent-to = The code sent to { $wanted }
account-account-view-this-address-is-mine = This address is mine
account-account-view-delete-account = Delete account
account-account-view-kitchens-with-no-other-owner-are = Kitchens with no other owner are deleted too. Deletion happens after 14 days.
account-account-view-download-your-files = Download your files
account-account-view-first = first.
account-account-view-activity = Activity
account-account-view-that-device-is-signed-out = That device is signed out.
account-account-view-password-changed = Password changed.
account-account-view-email-address-changed = Email address changed.
account-account-view-on = on { $system }
account-account-view-an-unknown-browser = an unknown browser

## kitchen-view

account-kitchen-view-e-mail = e-mail
account-kitchen-view-and-history = and history
account-kitchen-view-people = People{ $is_owner }
account-kitchen-view-this-kitchen-and-everything-in-it = This kitchen and everything in it will be deleted on { $erased_at }.
account-kitchen-view-keep-it = Keep it
account-kitchen-view-people-of-this-kitchen = People of this kitchen
account-kitchen-view-you = you
account-kitchen-view-role-of = Role of { $email }
account-kitchen-view-leave-kitchen = Leave kitchen
account-kitchen-view-remove = Remove { $email }
account-kitchen-view-remove-2 = Remove
account-kitchen-view-asked-in-as-good-until = asked in as { $role }, good until { $valid_until }
account-kitchen-view-resend-invitation-to = Resend invitation to { $email }
account-kitchen-view-resend-invitation = Resend invitation
account-kitchen-view-cancel-invitation-for = Cancel invitation for { $email }
account-kitchen-view-cancel-invitation = Cancel invitation
account-kitchen-view-invite-a-member = Invite a member
account-kitchen-view-as = As
account-kitchen-view-send-invitation = Send invitation
account-kitchen-view-they-join-when-they-open-the = They join when they open the link in the email and sign in with that address.
account-kitchen-view-what-happened = What happened
account-kitchen-view-delete-kitchen = Delete kitchen
account-kitchen-view-formulas-packs-bakes-and-photos-are = Formulas, packs, bakes, and photos are deleted after 14 days. Until then an owner can cancel. Download { $value }
account-kitchen-view-the-whole-kitchen-as-a-file = the whole kitchen as a file
account-kitchen-view-first = { $value }first.
account-kitchen-view-type-the-kitchens-name-to-delete = Type the kitchen's name to delete it
account-kitchen-view-can-do-everything-including-members = can do everything, including members
account-kitchen-view-can-edit-formulas-packs-and-bakes = can edit formulas, packs, and bakes
account-kitchen-view-can-view-only = can view only
account-kitchen-view-the-kitchen = the kitchen
account-kitchen-view-you-have-left = You have left { $name }.

## history-list

account-history-list-no-activity-yet = No activity yet.
account-history-list-show-older = Show older

## outbox-view

account-outbox-view-outbox = Outbox
account-outbox-view-no-mail-server-is-set-up = No mail server is set up. Emails are saved on this computer, and anyone who uses it can read them here.
account-outbox-view-no-emails-yet = No emails yet.
account-outbox-view-to = to { $to } · { $to_locale_string }

## second-factor

account-second-factor-two-step-verification = Two-step verification
account-second-factor-on-since-signing-in-needs-a = On since { $created_at }. Signing in needs a code from your authenticator app.
account-second-factor-recovery-codes-left = Recovery codes left: { $left }
account-second-factor-show-the-recovery-codes = Show the recovery codes
account-second-factor-create-new-recovery-codes = Create new recovery codes
account-second-factor-turn-off = Turn off
account-second-factor-qr-code-for-your-authenticator-app = QR code for your authenticator app
account-second-factor-scan-this-with-your-authenticator-app = Scan this with your authenticator app, or enter
account-second-factor-into-it = into it.
account-second-factor-code-from-the-app = Code from the app
account-second-factor-turn-it-on = Turn it on
account-second-factor-adds-a-code-from-your-phone = Adds a code from your phone to your password, so a guessed password is not enough to sign in.
account-second-factor-set-up-an-authenticator = Set up an authenticator
account-second-factor-use-a-recovery-code-if-you = Use a recovery code if you lose your phone. Each code works once. Store them away from your phone.
account-second-factor-passkey = Passkey “{ $name }”
account-second-factor-since = since { $created_at }
account-second-factor-remove = Remove
account-second-factor-add-a-passkey-of-this-device = Add a passkey of this device
account-second-factor-two-step-verification-is-on = Two-step verification is on.
account-second-factor-new-recovery-codes-the-former-ones = New recovery codes; the former ones are no longer good.
account-second-factor-two-step-verification-is-off = Two-step verification is off.
account-second-factor-this-device = this device
account-second-factor-passkey-added = Passkey added.
account-second-factor-passkey-removed = Passkey removed.
