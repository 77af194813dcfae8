"""The demo people: name, password, role. Printed at start, since this is a demo on loopback."""

PEOPLE = (
    ("engineer", "turn-the-arrow", "engineer"),
    ("operator", "read-the-chips", "operator"),
    ("administrator", "open-the-doors", "administrator"),
)
