// The words the interface speaks. English is the program's own; others are catalogues among its resources, JSON from the
// English text to the other, for tr() and for the core's phrases alike.
#pragma once

#include <string_view>

#include <QFontMetrics>
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

/// As many parts of a line, told apart by dots, as have room: what does not fit is left out, never cut. Empty where not even the
/// first does.
QString what_fits(const QString& line, const QFontMetrics& metrics, double width);

}  // namespace yb
