#pragma once

#include "core/studies/arrangement/arrangement.hpp"
#include "core/studies/arrangement/mean_bound.hpp"

namespace glow::studies {

/// A field and its luminaires in their places.
struct LaidField {
  Field field;
  space::LuminaireGroup group;
};

/// Fields by rising numbers of luminaires.
struct AllFields {
  std::vector<LaidField> fields;
  std::size_t blocked = 0;  ///< would hang in an object, before a door or in what hangs there already
  std::size_t too_few = 0;  ///< have fewer positions than `fewest`, and were not laid
};

/// All fields that the wish allows, of `fewest` to `most` luminaires. Arrays whose spacing one way is more
/// than kMostOblong times the other are left out, but for single rows; so are those that something blocks.
AllFields all_fields(const SearchRoom& room, const ArrangementWish& wish, std::size_t fewest,
                     std::size_t most);
inline constexpr double kMostOblong = 3;

/// Places all over what is to be filled, in all ways that a luminaire may hang: where one of them gives most.
std::vector<photometry::PlacedLuminaire> sample_places(const SearchRoom& room, const ArrangementWish& wish);

/// The same as boxes that hold all places where a luminaire of the wish may hang, one for each way it is
/// turned.
std::vector<HangingPlaces> hanging_places(const SearchRoom& room, const ArrangementWish& wish);

}  // namespace glow::studies
