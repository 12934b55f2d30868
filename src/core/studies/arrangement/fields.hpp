#pragma once

#include "core/studies/arrangement/arrangement.hpp"

namespace glow::studies {

/// A field and its luminaires in their places.
struct LaidField {
  Field field;
  space::LuminaireGroup group;
};

/// All fields that the wish allows, of up to `most` luminaires, by rising numbers of them. Arrays whose
/// spacing one way is more than kMostOblong times the other are left out, but for single rows; so are those
/// that would hang in an object, before a door or in what hangs there already, which `blocked` counts.
std::vector<LaidField> all_fields(const SearchRoom& room, const ArrangementWish& wish, std::size_t most,
                                  std::size_t& blocked);
inline constexpr double kMostOblong = 3;

/// Places all over what is to be filled, in all ways that a luminaire may hang: where one of them gives most.
std::vector<photometry::PlacedLuminaire> sample_places(const SearchRoom& room, const ArrangementWish& wish);

}  // namespace glow::studies
