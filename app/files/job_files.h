// A job going out to a file and coming in from one.
#pragma once

#include <string>

#include <QString>

namespace yb {

class Session;

/// Writes the job on the bench with its slab and the shop's settings. Returns what went wrong, or nothing.
QString write_job(const Session& session, const QString& path);

/// Reads a job and its slab into the shop and puts it on the bench; what is already there stays. Returns what
/// went wrong, or nothing.
QString read_job(Session& session, const QString& path);

}  // namespace yb
