#pragma once

#include "core/views/picture.hpp"

namespace glow::views {

/// Adds the light that an eye scatters on its way to the retina: what is brighter than `glaring_cd_m2` veils
/// what lies about it, by Lv = E (10 / theta^3 + 5 (1 + (A / 62.5)^4) / theta^2), theta in degrees from 0.1
/// up and E in lx at the eye (CIE 146:2002), here of an eye of A = 30 years. Pictures without an eye, which
/// are taken along parallel lines, stay as they are.
void add_bloom(const geometry::Camera& camera, double glaring_cd_m2, SeenLight& light);

}  // namespace glow::views
