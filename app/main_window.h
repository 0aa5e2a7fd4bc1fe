// The window: a thin line on top, the bench, the slip, the stick; menus for those who look there.
#pragma once

#include <QMainWindow>

#include "app/kit/bench/step_view.h"

class QLabel;
class QPushButton;
class QStackedWidget;

namespace yb {

class Bench;
class CardPage;
class FindPage;
class FileTrouble;
class FindPanel;
class GrowPage;
class GuidePage;
class JobsPage;
class LogPage;
enum class OutlineAs;
class LongWork;
class PhotoPage;
class Pictures;
class RackRow;
class SheetView;
class ShopPage;
class Slip;
class StartPage;
class Tour;
class Stick;
class TapePanel;

class MainWindow : public QMainWindow {
    Q_OBJECT
  public:
    MainWindow();
    ~MainWindow() override;

    Session& session() { return session_; }
    Bench& bench() { return *bench_; }

    /// A window of a wanted place and size as it goes on a screen, its frame counted: moved in, and made smaller where it must be.
    static QRect fitted(QRect wanted, const QRect& available, const QMargins& frame);
    /// Where and as large as it was left, or 1280 × 800 in the middle, within the screen it opens on.
    void open_where_it_was();

    /// Opens a shop; what can't be opened is said on the start page, with what can be done.
    void open_shop(const QString& path);
    void open_demo(const QString& path);
    /// Waits until the demo's pictures are grown and shown: for pictures and tests.
    void finish_growing();
    /// Saves the sheet as PDF; says on the status line how it went.
    bool save_pdf(const QString& path);
    /// Writes the program that flattens one side of the leaf in hand.
    bool export_gcode(const QString& path, bool first);
    bool export_job(const QString& path);
    bool import_job(const QString& path);
    /// Saves the shop elsewhere, what the file would not take included.
    void save_copy();
    /// Puts a backup in the shop's place and opens it; what stood there is kept under a name of its own.
    void restore(const QString& backup);
    /// The months of the job's room from an air logger's CSV.
    void bring_air(const QString& path);
    /// Reads a photograph in the background and opens its page; a sentence when it is no picture.
    void bring_photo(const QString& path);
    void bring_scan(const QString& path);
    /// @param mm_per_unit empty: what the file says; asked for where it says nothing.
    void bring_drawing(const QString& path, std::optional<double> mm_per_unit = {});
    /// The outline in a drawing as the wanted top of the job on the bench.
    void bring_free_form(const QString& path, std::optional<double> mm_per_unit = {});
    /// A drawing 1:1, as SVG, DXF or PDF over several pages, by the ending of the path.
    /// @param what the key of a drawing (core/shop/templates).
    bool export_drawing(const QString& path, const char* what);
    /// A list of slabs, CSV.
    void bring_slabs(const QString& path);
    /// Whatever a file is, by its ending: a shop is opened, a slab or job brought in. @returns false for what is none of them.
    bool bring_file(const QString& path);
    LongWork& long_work() { return *work_; }
    /// The page of practice logs.
    void show_grow();
    /// What could be made of what is on the rack.
    void show_find_tops();
    /// What belongs to the shop.
    void show_shop();
    /// All jobs of the shop.
    void show_jobs();
    void show_days();
    /// What listens to instruments: made when one is wanted first.
    class Instruments& instruments();
    /// The book of the shop.
    void show_book();
    /// What the job on the bench costs, its ways, its offer.
    void show_money();
    /// A note into the book, of what is picked.
    void write_note();
    /// Photographs of the job on the bench, read beside the work.
    void bring_job_photo(const QString& path);
    /// A calendar is written anew from now on whenever the days change while they are open. @param path empty: none.
    void keep_calendar(const QString& path);
    /// The guide at what is looked at now: the caution that is open, the step, the page.
    void show_guide();
    /// Five stops over the real screens.
    void take_tour();
    /// The slabs of a tree in the order they were sawn.
    void show_log();
    /// A card to run at the bench, "pour", "glue" or "rods"; where one is under way it goes on.
    CardPage* show_card(const QString& card);
    /// … of any job of the shop that was broken off. @returns false where there is none.
    bool take_up_card();
    void say(const QString& text, bool trouble = false);
    /// The start page: `trouble` says why a shop at `path` could not be opened.
    /// @param what of that shop can be offered there: a backup, what is whole of it, setting its journal aside.
    void show_start(const QString& trouble = {}, const QString& path = {}, StoreError::Kind what = StoreError::Kind::other);
    void take_what_is_there();
    void choose_backup();
    /// Puts everything of a damaged shop that is whole into a new file beside it, in the background, and shows what is not.
    void repair_shop(const QString& path);
    /// What was said last.
    QString said() const;

  protected:
    /// Keeps what is typed and not yet entered.
    void closeEvent(QCloseEvent* e) override;
    void keyPressEvent(QKeyEvent* e) override;
    /// Whatever is dropped anywhere is brought in by its kind.
    void dragEnterEvent(QDragEnterEvent* e) override;
    void dropEvent(QDropEvent* e) override;

  private:
    void show_start(StartPage* page);
    void build_menus();
    void fill_files(QMenu* file);
    void fill_papers(QMenu* file);
    void fill_edits(QMenu* edit);
    void fill_views(QMenu* view);
    void fill_bench(QMenu* view);
    void fill_units(QMenu* view);
    void fill_help(QMenu* help);
    QWidget* build_top();
    void show_step();
    void refresh();
    void show_middle();
    void keys_to_work();
    void remember(const QString& path);
    void grow_demo_pictures();
    /// Slabs from files; what can't be read is said on the status line.
    void choose_photo();
    void choose_sample();
    QString choose_picture(const QString& title);
    void choose_days_off();
    void choose_job_photo();
    void write_agreement();
    void choose_signed();
    void write_book();
    void write_offer();
    void write_shopping();
    void write_label();
    void look_across_the_room();
    void listen_to_instrument();
    void write_calendar();
    void write_kept_calendar();
    void write_week();
    void choose_scan();
    void choose_list();
    void choose_drawing(OutlineAs as);
    void bring_outline(const QString& path, std::optional<double> mm_per_unit, OutlineAs as);

    void print_sheet();
    void new_shop();
    void own_shop(const QString& name, const QString& path);
    void practise();
    void choose_shop();
    /// What the guide is asked for: see GuidePage::open_at().
    QString topic() const;
    void offer_tour();
    void type_dimension();
    void type_tape();
    /// @param name a name that is offered, in the folder of documents.
    QString ask_save(const QString& title, const QString& filter, const QString& name = {});

    Session session_;
    Pictures* pictures_;
    Bench* bench_;
    RackRow* rack_row_;
    TapePanel* tape_;
    SheetView* sheet_;
    Slip* slip_;
    Stick* stick_;
    QStackedWidget *pages_, *middle_;
    StartPage* start_ = nullptr;
    ShopPage* shop_ = nullptr;
    FindPanel* find_ = nullptr;
    GrowPage* grow_ = nullptr;
    FindPage* find_tops_ = nullptr;
    GuidePage* guide_ = nullptr;
    QWidget* guide_from_ = nullptr;
    Tour* tour_ = nullptr;
    JobsPage* jobs_ = nullptr;
    class DaysPage* days_ = nullptr;
    class Instruments* instruments_ = nullptr;
    class BookPage* book_ = nullptr;
    class MoneyPage* money_ = nullptr;
    LogPage* log_ = nullptr;
    CardPage* card_ = nullptr;
    PhotoPage* photo_ = nullptr;
    LongWork* work_ = nullptr;
    QPushButton *job_, *units_, *undo_, *redo_, *try_again_, *keep_copy_, *take_there_, *mend_, *tour_offer_;
    FileTrouble* file_trouble_;  ///< the same above a page that hides the top line
    QLabel *about_, *air_, *settles_, *status_;
    QMenu* recent_ = nullptr;
    std::vector<std::unique_ptr<StepView>> steps_;
    StepView* view_ = nullptr;
};

}  // namespace yb
