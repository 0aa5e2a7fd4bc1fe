#pragma once

#include <QByteArray>
#include <QString>

namespace yb {

/// Writes bytes to a file whole or not at all: a full disk leaves the old file as it was. Returns what went
/// wrong in one sentence, or nothing.
QString write_whole(const QString& path, const QByteArray& bytes);

/// `stem`.shop, or the first of `stem`-2.shop, `stem`-3.shop … that is not there yet.
QString free_shop_name(const QString& stem);

}  // namespace yb
