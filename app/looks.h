// Pictures of the program taken by itself.
#pragma once

#include <QSize>
#include <QString>

namespace yb {

class MainWindow;

/// One picture of one step of one of the demo's jobs, for a look while working on it.
/// @param thing picked, or the card that runs. @returns 0 where it was written.
int take_look(MainWindow& window, const QString& job, const QString& step, const QString& path, const QString& thing, QSize size);
/// The offer of a job file as PDF. @param told what went wrong, in a sentence. @returns 0 where it was written, 2 for a file that can't be
/// read.
int write_offer_of(MainWindow& window, const QString& job_file, const QString& pdf, QString* told);
/// Pictures of every main view from the demo data.
int take_screenshots(MainWindow& window, const QString& folder);

}  // namespace yb
