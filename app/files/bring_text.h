// Text files of others, read beside the work. Where a file does not say how its letters are written, the maker sees how each code page
// would read them and chooses; then it is read again.
#pragma once

#include <functional>
#include <optional>
#include <variant>
#include <vector>

#include <QFileInfo>

#include "app/ground/slow/long_work.h"
#include "core/ground/file/text.h"

namespace yb {

/// Which of the readings is right, as iconv names its code page; nothing where nobody says.
std::optional<std::string> ask_code_page(QWidget* over, const QString& path, const std::vector<UnknownCodePage::Reading>& readings);

/// @param make of the text and the work, beside; what it throws is said with the file's name. @param done back here, with what it made.
template <class Make, class Done>
void bring_text(LongWork& work, const QString& what, const QString& path, std::uint64_t most_bytes, Make make, Done done,
                const std::string& page = {}) {
    using Made = decltype(make(std::string(), Work()));
    using Read = std::variant<Made, std::vector<UnknownCodePage::Reading>>;
    work.run(
        what,
        [=](const Work& w) -> Read {
            try {
                return make(read_text(path.toStdString(), most_bytes, page), w);
            } catch (const UnknownCodePage& e) {
                return e.readings();
            } catch (const FormatError& e) {
                if (e.where() == path.toStdString()) throw;
                throw FormatError(QFileInfo(path).fileName().toStdString(), e.what());
            }
        },
        [=, &work](Read& read) {
            if (Made* made = std::get_if<Made>(&read)) return done(*made);
            if (const auto chosen = ask_code_page(&work, path, std::get<1>(read)))
                bring_text(work, what, path, most_bytes, make, done, *chosen);
        });
}

}  // namespace yb
