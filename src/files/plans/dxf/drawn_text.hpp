#pragma once

#include <string>
#include <string_view>

namespace glow::files::dxf {

/// Texts of drawings as people read them, in UTF-8.

/// How a file's bytes are letters: by its version ("AC1015") and code page ("ANSI_1252").
class Letters {
 public:
  Letters() = default;
  Letters(std::string_view version, std::string_view code_page);

  /// Bytes of a text or name, with \U+XXXX resolved.
  std::string decoded(std::string_view bytes) const;
  /// Whether the code page is one that is known; else Latin letters are taken.
  bool is_known() const { return is_known_; }

 private:
  std::string page_ = "CP1252";  ///< empty: UTF-8
  bool is_known_ = true;
};

/// A decoded text in one line: %%d and the like resolved.
std::string plain_line(const std::string& text);
/// A decoded paragraph text: formatting codes taken out, its lines apart by line breaks.
std::string plain_paragraph(const std::string& text);

/// The same letters, small or capital alike, for comparing names.
std::string folded(const std::string& text);

}  // namespace glow::files::dxf
