def write_boolean(value: bool) -> str:
    """Write a truth in letters."""
    return "true" if value else "false"
