"""Somebody leaves a finding as it is, with a reason, and has it judged again."""

from tests.browser.person import Person


def test_a_finding_is_left_as_it_is_with_a_reason_and_judged_again(person: Person) -> None:
    person.open_bench("Sign-in logo")
    person.sees("The mark reads only 1.4 : 1")
    person.button("Right as it is").click()
    person.find("//input[@required and @maxlength='300']").send_keys("It is meant to be quiet there.")
    person.button("Leave it so").click()
    person.sees("Nothing to mend")
    person.sees("It is meant to be quiet there.")
    person.go("/w/ottermoor")
    person.wait(lambda: "fits" in person.state_of("Sign-in logo"), "the state without it")
    person.open_bench("Sign-in logo")
    person.button("Judge it again").click()
    person.sees("1 thing to look at")
