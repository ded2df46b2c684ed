"""The arrays of numeric work: float64 throughout."""

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
