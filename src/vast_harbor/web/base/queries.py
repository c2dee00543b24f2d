"""What many requests say: which rig, and under which key."""

from pydantic import BaseModel, Field

# What a browser can still tell from its neighbour.
LARGEST_ID = 2**53


class RigPath(BaseModel):
    """Which rig."""

    rig_id: int = Field(ge=1, le=LARGEST_ID, description="Number of the rig")


class KeyQuery(BaseModel):
    """The sender's own key: what is sent twice under it is done once."""

    key: str = Field(default="", max_length=40)
