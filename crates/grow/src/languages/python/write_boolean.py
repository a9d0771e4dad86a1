def write_boolean(value: bool) -> str:
    """A truth in letters."""
    return "true" if value else "false"
