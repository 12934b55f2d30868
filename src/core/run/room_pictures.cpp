#include "core/run/room_pictures.hpp"

#include <algorithm>

namespace glow::run {
namespace {

/// The view in the size that is asked for; a parallel one keeps all of the room in the picture.
space::PlannedView sized(space::PlannedView view, const PictureChoice& choice) {
  geometry::Camera& camera = view.camera;
  const double half_height = camera.half_height();
  if (choice.size) {
    camera.columns = choice.size->first;
    camera.rows = choice.size->second;
    if (camera.projection == geometry::Projection::parallel)
      camera.half_width = std::max(camera.half_width, half_height * camera.columns / camera.rows);
  }
  if (choice.most_columns > 0 && camera.columns > choice.most_columns) {
    camera.rows = std::max(1, camera.rows * choice.most_columns / camera.columns);
    camera.columns = choice.most_columns;
  }
  return view;
}

}  // namespace

std::vector<views::Picture> pictures_of(const space::PlannedRoom& room, const views::LitSpace& lit,
                                        const std::vector<views::PictureUse>& uses,
                                        const PictureChoice& choice, const Watch& watch) {
  std::vector<views::Picture> pictures;
  const views::RoomSources sources(lit, watch);
  const views::SeenLuminaires luminaires(*lit.space);
  for (const space::PlannedView& view : room.views) {
    if (!choice.names.empty() &&
        std::find(choice.names.begin(), choice.names.end(), view.name) == choice.names.end())
      continue;
    pictures.push_back(views::render(sources, luminaires, sized(view, choice), choice.quality, watch));
    pictures.back().uses = uses;
  }
  return pictures;
}

}  // namespace glow::run
