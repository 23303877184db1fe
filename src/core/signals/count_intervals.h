// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstddef>

namespace fin {

/// A 95 % interval of a share or of a number of events.
struct CountInterval {
  double from = 0.0;
  double to = 1.0;
};

/// Of a share, k of n (n at least 1): E. Wilson, Probable inference, 1927. Near its nominal cover on average.
CountInterval wilson(std::size_t k, std::size_t n);
/// The same from H. Jeffreys's prior, 1946: the middle 95 % of a beta distribution with k + ½ and n − k + ½.
CountInterval jeffreys(std::size_t k, std::size_t n);
/// Of the number of events expected where k were counted: F. Garwood, Fiducial limits for the Poisson
/// distribution, 1936.
CountInterval garwood(std::size_t k);

}  // namespace fin
