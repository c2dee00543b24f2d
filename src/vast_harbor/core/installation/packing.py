"""Boxes in a locker: a search for places in permitted poses, and by how much it fails."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache

from vast_harbor.core.battery.datasheet import UPRIGHT

SIDE_MM, OVER_MM, GAP_MM = 25.0, 50.0, 5.0
STANDING, ON_SIDE, ON_END = "upright", "side", "end"
POSES = (STANDING, ON_SIDE, ON_END)
Size = tuple[float, float, float]
# How far a missing dimension is looked for.
FAR_MM = 4000.0


@dataclass(frozen=True, slots=True)
class Place:
    """Where one box stands.

    Attributes:
        compartment: 0 or 1.
        x, y: its corner, from the corner of the compartment [mm].
        pose: ``upright``, on its ``side`` or on its ``end``.
        turned: whether it is turned by a quarter on the floor.
    """

    compartment: int
    x: float
    y: float
    pose: str = STANDING
    turned: bool = False


@dataclass(frozen=True, slots=True)
class Packing:
    """A bank in its locker.

    Attributes:
        places: one for each box that found room.
        count: boxes there are.
        free_l: room left between the clearances [l].
    """

    places: tuple[Place, ...]
    count: int
    free_l: float

    @property
    def fits(self) -> bool:
        """Whether every box found room."""
        return len(self.places) == self.count


def posed(size: Size, pose: str) -> Size:
    """Length, width on the floor and height of a box in a pose [mm]."""
    length, width, height = size
    if pose == ON_SIDE:
        return length, height, width
    if pose == ON_END:
        return width, height, length
    return length, width, height


def footprint(size: Size, place: Place) -> Size:
    """The same as it stands in a place, turned or not [mm]."""
    along, across, up = posed(size, place.pose)
    return (across, along, up) if place.turned else (along, across, up)


def poses(orientation: str) -> tuple[str, ...]:
    """Poses that a case permits; none stands upside down."""
    return (STANDING,) if orientation == UPRIGHT else POSES


def _takes(size: Size, pose: str) -> Size:
    """Room that a box takes in a pose: terminals keep 50 mm free, above it or beside it."""
    along, across, up = posed(size, pose)
    return (along, across, up + OVER_MM) if pose == STANDING else (along, across + OVER_MM, up)


@lru_cache(maxsize=20_000)
def cells(
    length: float, width: float, a: float, b: float, most: int, depth: int
) -> tuple[tuple[float, float, bool], ...]:
    """Corners of rectangles a × b in a floor, turned or not: blocks are cut off it in turn.

    Args:
        length, width: of the floor [mm].
        a, b: of a rectangle, its gap included [mm].
        most: more than so many are not wanted.
        depth: how many times a rest may be parted again.

    Returns:
        (x, y, turned) of each [mm].
    """
    best: tuple[tuple[float, float, bool], ...] = ()
    for turned, (p, q) in ((False, (a, b)), (True, (b, a))):
        columns, rows = int((length + 1e-6) // p), int((width + 1e-6) // q)
        if not columns or not rows:
            continue
        grid = [(i * p, j * q, turned) for i in range(columns) for j in range(rows)]
        if len(grid) > len(best):
            best = tuple(grid[:most])
        if len(best) >= most:
            return best
        if depth <= 0:
            continue
        if int(length * width // (a * b)) <= len(best):
            return best
        for i in range(1, columns + 1):
            block = [(k * p, j * q, turned) for k in range(i) for j in range(rows)]
            rest = cells(length - i * p, width, a, b, most, depth - 1)
            found = block + [(x + i * p, y, t) for x, y, t in rest]
            if len(found) > len(best):
                best = tuple(found[:most])
        for j in range(1, rows + 1):
            block = [(i * p, k * q, turned) for i in range(columns) for k in range(j)]
            rest = cells(length, width - j * q, a, b, most, depth - 1)
            found = block + [(x, y + j * q, t) for x, y, t in rest]
            if len(found) > len(best):
                best = tuple(found[:most])
    return best


def _place(room: Size, size: Size, allowed: Sequence[str], count: int, compartment: int) -> list[Place]:
    """As many boxes as find room, in the pose of which most do; upright where it is the same."""
    best: list[Place] = []
    for pose in allowed:
        along, across, up = _takes(size, pose)
        if up > room[2] + 1e-6:
            continue
        floor = (room[0] - 2 * SIDE_MM + GAP_MM, room[1] - 2 * SIDE_MM + GAP_MM)
        if floor[0] <= 0 or floor[1] <= 0:
            continue
        if (along + GAP_MM) * (across + GAP_MM) * (len(best) + 1) > floor[0] * floor[1]:
            continue
        found = cells(
            round(floor[0], 3),
            round(floor[1], 3),
            round(along + GAP_MM, 3),
            round(across + GAP_MM, 3),
            count,
            2,
        )
        if len(found) > len(best):
            best = [Place(compartment, x + SIDE_MM, y + SIDE_MM, pose, turned) for x, y, turned in found]
        if len(best) >= count:
            break
    return best


def _least(room: Size, size: Size, allowed: Sequence[str], count: int, axis: int) -> float | None:
    """How much longer the room must be in one direction for all boxes [mm]; None where that does not help."""

    def enough(more: float) -> bool:
        longer = tuple(side + (more if i == axis else 0.0) for i, side in enumerate(room))
        return len(_place((longer[0], longer[1], longer[2]), size, allowed, count, 0)) >= count

    if not enough(FAR_MM):
        return None
    low, high = 0, int(FAR_MM)
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (low, middle) if enough(float(middle)) else (middle, high)
    return float(high)


@lru_cache(maxsize=4096)
def pack(rooms: tuple[Size, ...], size: Size, orientation: str, count: int) -> Packing:
    """Stand a bank into its compartments, the first one first.

    Boxes stand on the floor, one layer, all of a compartment in one pose, turned as it suits; 25 mm are kept
    at the sides, 50 mm at the terminals, 5 mm between boxes.

    Args:
        rooms: inside length, width and height of one or two compartments [mm].
        size: length, width and height of a box, terminals included [mm].
        orientation: ``upright``, ``sides`` or ``any``.
        count: boxes, 1 or more.

    Returns:
        The places. A search by blocks: it may miss a packing that a patient person finds.
    """
    allowed = poses(orientation)
    places: list[Place] = []
    for i, room in enumerate(rooms):
        places += _place(room, size, allowed, count - len(places), i) if len(places) < count else []
    volume = sum(
        max(0.0, r[0] - 2 * SIDE_MM) * max(0.0, r[1] - 2 * SIDE_MM) * max(0.0, r[2] - OVER_MM) for r in rooms
    )
    taken = len(places) * size[0] * size[1] * size[2]
    return Packing(tuple(places), count, max(0.0, volume - taken) / 1e6)


@lru_cache(maxsize=1024)
def lacks(rooms: tuple[Size, ...], size: Size, orientation: str, count: int) -> tuple[float | None, ...]:
    """What the first compartment lacks in one direction alone for a bank that does not fit.

    Args:
        rooms, size, orientation, count: as for :func:`pack`.

    Returns:
        How much longer, wider and higher it must be [mm], each alone; None where that would not do.
    """
    elsewhere = sum(1 for p in pack(rooms, size, orientation, count).places if p.compartment > 0)
    return tuple(_least(rooms[0], size, poses(orientation), count - elsewhere, axis) for axis in range(3))


def roomier(room: Size, size: Size, orientation: str, count: int) -> Size:
    """The compartment that takes all boxes in rows and columns and is larger by as little as possible.

    Args:
        room: inside length, width and height as it is [mm].
        size, orientation, count: as for :func:`pack`.

    Returns:
        Its length, width and height [mm]; none of them smaller than they are.
    """
    found = []
    for pose in poses(orientation):
        along, across, up = _takes(size, pose)
        for a, b in ((along, across), (across, along)):
            for columns in range(1, count + 1):
                rows = -(-count // columns)
                floor = (columns * (a + GAP_MM), rows * (b + GAP_MM))
                asked = (*(side - GAP_MM + 2 * SIDE_MM for side in floor), up)
                found.append((max(room[0], asked[0]), max(room[1], asked[1]), max(room[2], asked[2])))
    return min(found, key=sum)


@dataclass(frozen=True, slots=True)
class Clash:
    """What is wrong with boxes that an owner placed.

    Attributes:
        box: its number.
        what: ``outside`` the clearances, ``over`` the height, ``pose`` not permitted, or ``overlap``.
        other: the box that it overlaps.
        by_mm: how far.
    """

    box: int
    what: str
    by_mm: float
    other: int | None = None


def clashes(rooms: Sequence[Size], size: Size, orientation: str, places: Sequence[Place]) -> Iterator[Clash]:
    """What is wrong with places that an owner chose.

    Args:
        rooms, size, orientation: as for :func:`pack`.
        places: one for each box.

    Yields:
        Clashes, each box against the walls and against those before it.
    """
    boxes = [footprint(size, p) for p in places]
    for i, (place, (along, across, up)) in enumerate(zip(places, boxes, strict=True)):
        if place.compartment >= len(rooms):
            yield Clash(i, "outside", 0.0)
            continue
        room = rooms[place.compartment]
        if place.pose not in poses(orientation):
            yield Clash(i, "pose", 0.0)
        out = max(
            SIDE_MM - place.x,
            SIDE_MM - place.y,
            place.x + along + SIDE_MM - room[0],
            place.y + across + SIDE_MM - room[1],
        )
        if out > 0.5:
            yield Clash(i, "outside", out)
        above = up + (OVER_MM if place.pose == STANDING else 0.0) - room[2]
        if above > 0.5:
            yield Clash(i, "over", above)
        for j, other in enumerate(places[:i]):
            if other.compartment != place.compartment:
                continue
            o_along, o_across, _ = boxes[j]
            deep = min(
                place.x + along - other.x,
                other.x + o_along - place.x,
                place.y + across - other.y,
                other.y + o_across - place.y,
            )
            if deep > 0.5:
                yield Clash(i, "overlap", deep, j)
