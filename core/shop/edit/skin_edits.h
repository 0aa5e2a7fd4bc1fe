// Edits of a job's finish.
#pragma once

#include <string>

namespace yb {

struct Job;

/// A face left out, or treated as the rest again.
void leave_face_out(Job& job, const std::string& face, bool out);
/// A pocket or notch sealed against damp with one coat, or left as it is.
void seal_face(Job& job, const std::string& face, bool sealed);
/// The sample board is signed on a day. @param on ISO date; empty: it is not, any more.
void sign_sample(Job& job, const std::string& on);
void set_figured(Job& job, bool figured);

}  // namespace yb
