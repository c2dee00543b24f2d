"""Arrays of the core, as the types see them."""

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Ints = NDArray[np.int64]
SmallInts = NDArray[np.int32]
Flags = NDArray[np.bool_]
