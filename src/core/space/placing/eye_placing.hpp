#pragma once

#include "core/space/brief.hpp"
#include "core/space/space.hpp"

namespace glow::space {

/// Whether people sit at what they do: as the room says, else as its task has it, by
/// the posture in its row or by the height of its plane.
bool is_seated(const model::Room& room, const Tasks& tasks);

/// What limits glare in the room: by all `tasks` of it and of its areas.
GlareBrief glare_brief(const model::Room& room, const std::vector<Tasks>& tasks, const std::string& standard);

/// Eyes as the room asks for them; all over the room where a task limits glare and no eyes are given.
/// `space`: as far as it is built, with objects, openings and walls. Those all over stay off the walls and
/// keep out of where objects stand.
std::vector<EyeSet> place_eyes(const model::Room& room, const Space& space, const GlareBrief& glare,
                               bool seated, Problems& problems);

/// Where light falls into somebody's eyes, a point for each direction: planes that face along the sight.
std::vector<Point> points_at(const std::vector<EyeSet>& eyes);

}  // namespace glow::space
