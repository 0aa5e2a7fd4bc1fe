// Where a job stands, in words: for a page of jobs and whoever asks in passing.
#pragma once

#include <string>

#include "core/ground/figure/figure.h"

namespace yb {

struct Job;
struct Plan;

struct JobState {
    std::string key;                  ///< as JobLine::state has it
    Phrase says;                      ///< "rough-cut; both faces come next"
    Phrase next;                      ///< what to do now
    std::string ready;                ///< ISO date its last operation ends; empty where nothing is dated
    Severity worst = Severity::note;  ///< of what is to be minded
    int stops = 0;                    ///< how many things stop it
};

/// @param plan of the job; nullptr where it can't be planned: a slab of it has gone.
JobState state_of(const Job& job, const Plan* plan);

}  // namespace yb
