"""The normal distribution, as far as ranges are told by it."""

# Nine in ten lie below the mean plus so many standard deviations, eight in ten between minus and plus that.
Z_90 = 1.2815515655446004
