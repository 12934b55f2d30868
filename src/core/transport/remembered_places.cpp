#include "core/transport/remembered_places.hpp"

#include <functional>

#include "core/transport/patch_points.hpp"
#include "core/transport/patch_sum.hpp"

namespace glow::transport {
namespace {

constexpr std::size_t kTogether = 64;  // points of one task

std::size_t blocks_of(std::size_t points) {
  return (points + kTogether - 1) / kTogether;
}

/// `task(i)` for every point, in blocks that run side by side.
void for_points(std::size_t points, const Watch& watch, const char* what,
                const std::function<void(std::size_t)>& task) {
  parallel_for(blocks_of(points), watch, what, [&](std::size_t block) {
    for (std::size_t i = block * kTogether; i < std::min(points, (block + 1) * kTogether); ++i) task(i);
  });
}

}  // namespace

double RememberedPlaces::Terms::sum(const photometry::IntensityTable& table, std::size_t point) const {
  double sum = 0;
  for (std::uint32_t k = first[point]; k < first[point + 1]; ++k)
    sum += double(terms[k].weight) * table.intensity(double(terms[k].c_deg), double(terms[k].gamma_deg));
  return sum;
}

void RememberedPlaces::Terms::close_point(const LightTape& tape, std::size_t from) {
  for (std::size_t k = from; k < tape.size(); ++k)
    if (tape.terms()[k].weight > 0) terms.push_back(tape.terms()[k]);
  first.push_back(std::uint32_t(terms.size()));
}

void RememberedPlaces::Terms::append(const Terms& other) {
  const std::uint32_t offset = std::uint32_t(terms.size());
  terms.insert(terms.end(), other.terms.begin(), other.terms.end());
  for (std::size_t i = 1; i < other.first.size(); ++i) first.push_back(offset + other.first[i]);
}

std::size_t RememberedPlaces::terms() const {
  std::size_t sum = 0;
  for (const Place& place : places_) sum += place.patches.terms.size() + place.receivers.terms.size();
  return sum;
}

std::optional<RememberedPlaces> RememberedPlaces::of(
    const Transport& transport, const std::vector<photometry::PlacedLuminaire>& luminaires,
    const Watch& watch) {
  const bool straight = transport.exchange().closed && !transport.geometry().has_specular();
  const std::size_t points = transport.patches().size() + transport.receivers().size();
  if (!straight || luminaires.empty() || points * luminaires.size() > kMostTerms) return std::nullopt;
  RememberedPlaces places(transport, luminaires);
  for (const photometry::PlacedLuminaire& luminaire : luminaires) {
    places.places_.push_back(places.remember(luminaire, watch));
    if (places.terms() > kMostTerms) return std::nullopt;
  }
  return places;
}

RememberedPlaces::Place RememberedPlaces::remember(const photometry::PlacedLuminaire& luminaire,
                                                   const Watch& watch) const {
  const PatchSet& patches = transport_->patches();
  const std::size_t n = patches.size(), points = transport_->receivers().size();
  const DirectLight open(luminaire, nullptr);
  const DirectLight shaded(luminaire, &transport_->tracer(), &transport_->occluders());
  const PatchPoints on_patches{patches, open, transport_->effort().seed};
  Place place;
  if (transport_->occluders().any()) place.seen.setZero(Eigen::Index(n), kSets);
  std::vector<Terms> blocks(blocks_of(n));
  for_points(n, watch, "places", [&](std::size_t i) {
    LightTape tape;
    if (transport_->exchange().visible_area_m2[Eigen::Index(i)] > 0) {
      on_patches.flux_on<LightStretch>(i, &tape) *= patches.material_of(patches.patches()[i]).landing();
      if (place.seen.size() > 0 && tape.size() > 0) {
        const auto seen = on_patches.seen_in_sets(transport_->tracer(), transport_->occluders(), i);
        for (int set = 0; set < kSets; ++set) place.seen(Eigen::Index(i), set) = seen[std::size_t(set)];
      }
    }
    blocks[i / kTogether].close_point(tape, 0);
  });
  for (const Terms& block : blocks) place.patches.append(block);
  blocks.assign(blocks_of(points), {});
  for_points(points, watch, "places", [&](std::size_t r) {
    const Receiver& receiver = transport_->receivers()[r];
    LightTape tape;
    const bool hidden = transport_->occluders().may_block(receiver.position, luminaire.frame.origin,
                                                          open.surface().reach_m());
    if (!receiver.reflected_only) (hidden ? shaded : open).illuminance(receiver, tape);
    blocks[r / kTogether].close_point(tape, 0);
  });
  for (const Terms& block : blocks) place.receivers.append(block);
  return place;
}

GroupLight RememberedPlaces::relight(const std::shared_ptr<const photometry::IntensityTable>& table,
                                     const Watch& watch) const {
  const std::size_t n = transport_->patches().size(), points = transport_->receivers().size();
  PatchSum sum(n);
  std::vector<double> direct(points, 0.0);
  double caught = 0;
  for (const Place& place : places_) {
    const bool hides = place.seen.size() > 0;
    FoundLight found{Eigen::VectorXd(n), Eigen::MatrixXf(hides ? n : 0, hides ? kSets : 0)};
    for_points(n, watch, "light on the surfaces", [&](std::size_t patch) {
      const Eigen::Index i = Eigen::Index(patch);
      found.flux[i] = place.patches.sum(*table, patch);
      if (hides) found.sets.row(i) = float(found.flux[i]) * place.seen.row(i);
    });
    if (!found.is_near(table->flux(), table->flux())) {
      std::vector<photometry::PlacedLuminaire> luminaires = luminaires_;
      for (photometry::PlacedLuminaire& luminaire : luminaires) luminaire.table = table;
      return transport_->relight(luminaires, watch);
    }
    caught += found.sum();
    sum.light().emitted_lm += table->flux();
    found.add_to(sum, table->flux());
    for_points(points, watch, "direct light",
               [&](std::size_t r) { direct[r] += place.receivers.sum(*table, r); });
  }
  PatchLight light = std::move(sum.light());
  light.captured_share = light.emitted_lm > 0 ? caught / light.emitted_lm : 1;
  return transport_->spread(std::move(light), std::move(direct), watch);
}

}  // namespace glow::transport
