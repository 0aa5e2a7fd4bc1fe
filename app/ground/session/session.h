// Session: the open shop, the job on the bench, and its plan. Gestures become edits here; every edit is a
// revision of the store; the plan is made again and the views are told.
#pragma once

#include <functional>
#include <map>
#include <memory>
#include <optional>

#include <QObject>
#include <QString>
#include <QTimer>

#include "app/ground/session/ready_slabs.h"
#include "core/files/store/store.h"
#include "core/material/slab/slab.h"
#include "core/shop/edit/edits.h"
#include "core/shop/job/leaf.h"
#include "core/shop/job/plan.h"
#include "core/shop/job/shop.h"
#include "core/shop/job/steps.h"

namespace yb {

struct CardRun;
struct CardStep;
struct ChoiceCost;
struct Climate;
struct Documents;
struct FillChoices;
struct FlatChoices;
struct SkinChoices;
struct UnderChoices;
struct Job;
struct JoinChoices;
struct PourChoices;
struct Running;

class Session : public QObject {
    Q_OBJECT
  public:
    explicit Session(QObject* parent = nullptr);
    ~Session() override;

    /// Opens a shop file. @throws StoreError and keeps what was open.
    void open(const QString& path);
    /// Makes a new shop file and opens it. @throws StoreError.
    void create(const QString& path, const Documents& documents);
    bool is_open() const { return open_; }
    bool read_only() const { return !store_ || store_->read_only(); }
    /// A sentence for the maker; empty where it can be written.
    QString why_read_only() const;
    QString path() const;
    /// True while something typed is held here that the file would not take.
    bool unsaved() const { return unsaved_; }
    /// True while the file was taken away, or another stands in its place: nothing is written until the maker chose what to do.
    bool away() const { return away_.has_value(); }
    /// True where something else stands at its path that can be taken instead.
    bool other_there() const { return away_ == StoreError::Kind::replaced; }
    /// Opens what stands at the path now; what the file would not take goes into a copy beside it first. @throws StoreError: what was open
    /// stays.
    void take_what_is_there();

    const Documents& documents() const { return docs_; }
    const Units& units() const { return shop().units; }
    const Shop& shop() const;
    const std::map<std::string, Slab>& slabs() const;
    /// The job on the bench (with a drag in progress applied), or nullptr.
    const Job* job() const;
    /// True when that slab is a leaf of it.
    bool uses(const std::string& slab) const;
    /// Parts of it, or nullptr: most drawings want no more.
    const WantedTop* top() const;
    const MakeUpChoices* makeup() const;
    const std::vector<Leaf>* leaves() const;
    const PourChoices* pour() const;
    const JoinChoices* join() const;
    const FillChoices* fill() const;
    const FlatChoices* flat() const;
    const UnderChoices* under() const;
    const SkinChoices* skin() const;
    /// Where its table will stand.
    const Climate* room() const;
    std::string job_id() const;
    QString client() const;
    QString first_day() const;  ///< as it was typed
    bool cuts_done() const;
    /// The steps of one of its cards; empty where the plan has none.
    std::vector<CardStep> card_steps(const std::string& card) const;
    /// The run of that card that is under way; nullptr for none.
    const CardRun* running(const std::string& card) const;
    /// What it is called; empty where there is none.
    QString job_name() const;
    /// Names of all jobs, by id.
    std::map<std::string, QString> job_names() const;
    /// The slab that is looked at: the chosen one on the rack, otherwise the job's. Nullptr for none.
    const Slab* slab() const;
    const Plan* plan() const { return plan_ ? &*plan_ : nullptr; }
    /// The job's plan with its whole top on the bench, whatever is looked at now: for paper and files. Nothing without a job.
    std::optional<Plan> plan_of_whole();
    Step step() const { return step_; }
    /// True while a drag shows what is not kept yet.
    bool previewing() const { return shown_ || shown_slab_; }
    /// Grows whenever the slab on the bench is another or was measured anew: a key for pictures of it.
    int slab_version() const { return slab_version_; }
    double gauge_mm() const { return gauge_mm_; }
    /// Which leaf of a top of several lies on the bench in Flat and Fill.
    int leaf() const { return leaf_; }
    void set_leaf(int leaf);
    /// True when the whole of several leaves lies on the bench.
    bool whole() const { return plan_ && plan_->whole() && plan_->drawable(); }

    /// What can be picked in this step, in the order the hand goes through it.
    const std::vector<Thing>& things() const;
    /// What is picked: the key of a thing; empty for the top.
    const QString& picked() const { return picked_; }
    /// The same as a thing; nullptr for the top.
    const Thing* picked_thing() const;
    /// The kind of thing that is picked; "top" for none, and for a leaf that lies on the bench alone.
    QString about() const;
    /// Picks a thing by its key; of a leaf that lies on the bench alone the bench shows it. Empty, or a key that nothing has: the top.
    void pick(const QString& key);
    /// The thing after or before the one picked, the top between the last and the first. @returns false where that is the top.
    bool pick_next(int by);

    void set_step(Step step);
    void set_job(const QString& id);
    /// Looks at a slab on the rack without giving it to the job.
    void look_at(const QString& slab_id);
    void set_gauge(double x_mm);
    /// Where the bench's dial stands, 0 to 1: layers, hours or the season, as the step has it. Nothing until somebody turns it.
    std::optional<double> dial() const { return dial_; }
    void set_dial(std::optional<double> at);

    /// Changes the documents as one revision. When the file can't take it, the change is kept in memory,
    /// unsaved() turns true and trouble() says why. What can't be made (Refusal) is said, and all stays as it was.
    /// @returns false for that.
    bool edit(const QString& label, const std::function<void(Documents&)>& change);
    bool edit_job(const QString& label, const std::function<void(Job&)>& change);
    bool edit_shop(const QString& label, const std::function<void(Shop&)>& change);
    bool edit_slab(const QString& label, const std::function<void(Slab&)>& change);
    /// Changes the leaf on the bench.
    bool edit_leaf(const QString& label, const std::function<void(Leaf&)>& change);
    void preview_leaf(const std::function<void(Leaf&)>& change);
    /// Takes one of a choice's options; a make-up is laid anew for it.
    void choose(const QString& label, const std::string& choice, const std::string& option);
    /// Looks beside the work for what the program can do itself about a caution of the plan: tried, so that it is known to help.
    /// @param came on the interface's thread while `owner` lives and the look was not stopped; nothing where nothing helps.
    std::shared_ptr<Running> look_for_mend(const Caution& caution, QObject* owner, std::function<void(std::optional<Mend>)> came) const;
    /// What each option of a choice of the step does to money and days, planned beside the work (core/shop/ways/costs.h).
    std::shared_ptr<Running> look_for_costs(const std::string& choice, QObject* owner,
                                            std::function<void(std::vector<ChoiceCost>)> came) const;
    /// Does it, as one revision; says so where it can't be done any more.
    void mend(const Mend& mend);

    /// Where something slow was begun: what it makes belongs there, whatever lies on the bench when it comes.
    struct Begun {
        QString shop;
        std::string job;
    };
    Begun begun() const { return {path(), job_id_}; }
    /// True while the same shop is open; otherwise it is said that `what` was left.
    bool still_open(const Begun& where, const QString& what);
    /// Changes the job that it was begun for. @returns false, with a sentence, where its shop or it is no longer there.
    bool edit_begun(const Begun& where, const QString& label, const std::function<void(Job&)>& change);
    /// Turns the slab over or end for end; of several leaves the one on the bench, about its own middle.
    void turn(bool over);
    /// A new job on the slab that is looked at, its largest sensible top laid on it; the bench goes to Lay.
    void new_job();
    /// Lays slabs together as a make-up; says why where it is not possible.
    void make_up(const QString& label, MakeUp kind, const std::vector<std::string>& slabs);

    /// Shows a change of the job without keeping it: for drags. Always from the job as stored.
    void preview(const std::function<void(Job&)>& change);
    void preview_slab(const std::function<void(Slab&)>& change);
    /// Keeps what preview() showed as one revision.
    void keep(const QString& label);
    void drop_preview();

    bool can_undo() const { return store_ && store_->can_undo() && !unsaved_ && !away_; }
    bool can_redo() const { return store_ && store_->can_redo() && !unsaved_ && !away_; }
    QString undo_label() const;
    QString redo_label() const;
    void undo();
    void redo();
    /// Tries again to write what the file would not take.
    void try_again();
    /// Writes a line into the book; its job is the one on the bench where it names none. @returns a sentence where the file would not take
    /// it.
    QString write_book(BookEntry entry);
    /// The newest notes, readings and photographs of the thing that is picked, as they stand in the book; empty where it is none.
    std::vector<BookEntry> of_picked() const;
    /// @throws StoreError.
    void save_copy(const QString& path);
    /// Puts a backup in the shop's place, its journal minded, and opens it. @returns the name what stood there is kept under. @throws
    /// StoreError.
    std::string restore(const std::string& backup);

    /// The open shop file; nullptr when there is none.
    Store* store() { return store_ ? &*store_ : nullptr; }
    const Store* store() const { return store_ ? &*store_ : nullptr; }

  Q_SIGNALS:
    void opened();                             ///< another shop
    void shop_wanted(const QString& group);    ///< the maker wants to set what belongs to the shop: "sled", "resins" …
    void find_wanted();                        ///< … and what could be made of what is on the rack
    void picture_wanted();                     ///< … a photograph of the slab that is looked at
    void sample_wanted();                      ///< … the picture of the sample board
    void measure_wanted();                     ///< … the tape table of the slab that is looked at
    void form_wanted();                        ///< … a free form out of a drawing
    void card_wanted(const QString& card);     ///< … a card to run at the bench
    void typing_wanted(const QString& field);  ///< … to type on a line of the slip: the keys go there
    void changed();                            ///< plan, documents or units are new
    void step_changed();
    void gauge_moved();
    void dial_moved();
    void picked_changed();
    void trouble(const QString& sentence);
    void damaged(const QString& what);  ///< something in the shop file that is not shown does not fit its checksum
    /// What the last change did to money and days: "+84.00 · 1 day later"; empty: nothing.
    void cost_told(const QString& what);
    void book_written();                 ///< a line more is in the book
    void news(const QString& sentence);  ///< something went well, or as it was before

  private:
    /// The gauge goes where the picked thing lies, if it is small: the end view shows it.
    void follow_picked();
    void settle();      ///< after opening: pick a job
    void look_after();  ///< beside the work: the whole file is checked, today's backup made
    void replan();
    /// A job's slabs as they are now, with what is being dragged.
    JobSlabs made_ready(const Job& job);
    Documents alone(const std::string& job) const;
    std::vector<Slab> slabs_of(const std::vector<std::string>& ids) const;
    void forget_preview();
    void tell_cost();
    enum class Written { yes, held, refused };
    /// @returns held where the file would not take them: they stand here and are unsaved; refused where nothing ever will.
    Written write(const QString& label);
    /// Says what went wrong with the file, and minds whether it is still there.
    void mind(const StoreError& e);
    /// Shows what another program or window did with the shop meanwhile.
    void look_beside();
    void walk(bool (Store::*way)());  ///< undo or redo, and show what then stands

    std::optional<Store> store_;
    const std::unique_ptr<Documents> all_;
    Documents& docs_;
    bool open_ = false;
    bool unsaved_ = false;
    QString unsaved_label_;
    std::optional<StoreError::Kind> away_;
    std::string job_id_, looked_at_;
    std::unique_ptr<Job> shown_;  ///< a drag in progress
    std::optional<Slab> shown_slab_;
    std::optional<Plan> plan_;
    QString picked_;
    mutable std::optional<std::vector<Thing>> things_;  ///< of the plan, once they were asked for
    ReadySlabs ready_;
    std::shared_ptr<const PreparedSlab> on_bench_;
    int slab_version_ = 0;
    int leaf_ = 0;
    std::optional<double> dial_;
    mutable std::vector<BookEntry> book_;   ///< as far as it was read
    QTimer cost_soon_;                      ///< what a change costs is told once the hand rests
    std::unique_ptr<Documents> cost_from_;  ///< the job as it was then
    std::shared_ptr<Running> costing_;
    QTimer follow_;  ///< the gauge follows the picking once the hand rests
    QTimer beside_;  ///< how often the file is looked at for what another program did
    Step step_ = step_key::rack;
    double gauge_mm_ = 600;
};

}  // namespace yb
