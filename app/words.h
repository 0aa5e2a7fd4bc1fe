// The words the interface speaks. English is the program's own; others are catalogues among its resources, JSON from the
// English text to the other, for tr() and for the core's phrases alike.
#pragma once

#include <string_view>

#include <QString>

namespace yb {

/// Loads the catalogue of a language, "en_US"; English where there is none. Before the first window.
void speak_language(const QString& language);
/// The language that settings ask for, otherwise the desktop's.
QString wanted_language();
/// A text of the core – a label, a name of a step – as it is said.
QString told(const std::string& english);
inline QString told(std::string_view english) { return told(std::string(english)); }
inline QString told(const char* english) { return told(std::string(english)); }

}  // namespace yb
