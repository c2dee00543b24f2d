"""What the core raises when it is given something it cannot compute with."""


class InvalidInput(ValueError):
    """A value outside what a formula or a bank can take.

    Args:
        field: name of the offending field, as the caller knows it.
        message: one sentence for the owner: what is wrong and what would do.
    """

    def __init__(self, field: str, message: str) -> None:
        super().__init__(message)
        self.field = field
        self.message = message
