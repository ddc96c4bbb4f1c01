"""Arriving: signing in, and the sample workspace as it is at first."""

from tests.browser.person import Person


def test_a_wrong_password_is_said_and_the_right_one_opens_the_wall(visitor: Person) -> None:
    visitor.sign_in("not the password")
    visitor.sees("do not belong together")
    visitor.sign_in()
    visitor.sees("13 places, 8 fit.")
    for words in ("Video channel", "scale 1:12", "1 refused", "2 risky", "2 empty"):
        visitor.sees(words)
