// The program's texts in another language. A text is its own key: the English one.
#pragma once

#include <functional>
#include <string>

namespace yb {

/// Says a text of the program in another language: constant patterns with their `{}` and `%1`, labels, names of steps and
/// things. Gives the English text back where it has none. Called from any thread.
using Speaker = std::function<std::string(const std::string& english)>;

/// From now on texts are said by this; an empty one: English. To be called before work begins beside.
void speak(Speaker speaker);
/// A text of the program as it is said now.
std::string in_words(const std::string& english);

}  // namespace yb
