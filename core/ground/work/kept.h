// Answers that are kept for the same question: for what takes long and is asked again and again, from any thread.
#pragma once

#include <deque>
#include <mutex>
#include <utility>

namespace yb {

/// The last so many questions with their answers. A question is compared with ==.
template <class Question, class Answer>
class Kept {
  public:
    explicit Kept(std::size_t most) : most_(most) {}
    /// @param work makes the answer where the question is new; what it throws is thrown on, and nothing is kept.
    template <class Work>
    Answer answer(const Question& q, Work work) {
        {
            const std::lock_guard lock(guard_);
            for (const auto& [asked, answered] : kept_)
                if (asked == q) return answered;
        }
        Answer made = work();
        const std::lock_guard lock(guard_);
        kept_.emplace_front(q, made);
        if (kept_.size() > most_) kept_.pop_back();
        return made;
    }

  private:
    const std::size_t most_;
    std::mutex guard_;
    std::deque<std::pair<Question, Answer>> kept_;
};

}  // namespace yb
