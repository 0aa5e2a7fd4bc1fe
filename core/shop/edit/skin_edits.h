// Edits of a job's finish.
#pragma once

#include <cstddef>
#include <string>
#include <vector>

#include "core/steps/skin/choices.h"

namespace yb {

struct Job;

/// A face left out, or treated as the rest again.
void leave_face_out(Job& job, const std::string& face, bool out);
/// A pocket or notch sealed against damp with one coat, or left as it is.
void seal_face(Job& job, const std::string& face, bool sealed);
/// A face with a finish of its own, or as the rest.
void finish_face(Job& job, const std::string& face, FaceFinish finish);
/// Of a face that is told of twice the first holds.
void treat_once(Job& job);
/// A seam between two zones moved along the top; those the window asked for become the maker's with it. It stays between its neighbours.
/// @param seams where the zones meet now, from the left. @throws std::out_of_range for a seam that is not there.
void move_seam(Job& job, std::vector<double> seams, std::size_t seam, double by_mm);
/// Zones as large as the window asks again.
void even_zones(Job& job);
/// The picture of the sample, by its key in the shop; empty: none.
void keep_sample_picture(Job& job, const std::string& key);
/// The sample board is signed on a day. @param on ISO date; empty: it is not, any more.
void sign_sample(Job& job, const std::string& on);
void set_figured(Job& job, bool figured);

}  // namespace yb
