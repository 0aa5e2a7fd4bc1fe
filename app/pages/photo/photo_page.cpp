#include "app/pages/photo/photo_page.h"

#include <QBuffer>
#include <QButtonGroup>
#include <QFileInfo>
#include <QGridLayout>
#include <QImageReader>
#include <QLabel>
#include <QMouseEvent>
#include <QPainter>
#include <QPushButton>

#include <cmath>

#include "app/files/bring.h"
#include "app/ground/slow/long_work.h"
#include "app/ground/theme/theme.h"
#include "app/kit/fields/measure_field.h"
#include "core/ground/file/digest.h"
#include "core/ground/file/file.h"
#include "core/ground/file/format_error.h"
#include "core/shop/edit/slab_edits.h"

namespace yb {

PhotoCanvas::PhotoCanvas(QWidget* parent) : QWidget(parent) {
    setObjectName("photo_canvas");
    setMinimumSize(500, 380);
    setMouseTracking(true);
    setAccessibleName(tr("The photograph; drag its four marks to the corners of something of known size"));
}

void PhotoCanvas::show_photo(const QImage& photo) {
    photo_ = photo;
    scaled_ = {};
    result_.reset();
    strokes.clear();
    const double w = photo.width();
    const double h = photo.height();
    corners = {Vec2{w * 0.2, h * 0.2}, Vec2{w * 0.8, h * 0.2}, Vec2{w * 0.8, h * 0.8}, Vec2{w * 0.2, h * 0.8}};
    update();
}

void PhotoCanvas::show_outline(const std::optional<PhotoResult>& result) {
    result_ = result;
    update();
}

double PhotoCanvas::scale() const {
    return photo_.isNull() ? 1 : std::min(width() / static_cast<double>(photo_.width()), height() / static_cast<double>(photo_.height()));
}
QPointF PhotoCanvas::origin() const { return {(width() - photo_.width() * scale()) / 2, (height() - photo_.height() * scale()) / 2}; }
QPointF PhotoCanvas::shown(Vec2 p) const { return origin() + QPointF(p.x, p.y) * scale(); }
Vec2 PhotoCanvas::photo_px(QPointF p) const {
    const QPointF q = (p - origin()) / scale();
    return {q.x(), q.y()};
}

void PhotoCanvas::paintEvent(QPaintEvent*) {
    QPainter p(this);
    p.setRenderHint(QPainter::Antialiasing);
    const auto& c = theme::colours();
    p.fillRect(rect(), c.bench);
    if (photo_.isNull()) {
        p.setFont(theme::figures(14, true));
        p.setPen(c.pencil);
        p.drawText(rect(), Qt::AlignCenter, tr("Open a photograph of a slab lying on the floor,\nwith something of known size in it."));
        return;
    }
    if (scaled_.isNull())
        scaled_ =
            QPixmap::fromImage(photo_.scaled((QSizeF(photo_.size()) * scale()).toSize(), Qt::IgnoreAspectRatio, Qt::SmoothTransformation));
    p.drawPixmap(origin(), scaled_);
    for (const Stroke& s : strokes) {
        QColor ink = s.slab ? c.moss : c.madder;
        ink.setAlpha(130);
        p.setPen(QPen(ink, s.width_px * scale(), Qt::SolidLine, Qt::RoundCap, Qt::RoundJoin));
        QPolygonF line;
        for (const Vec2 q : s.points_px) line << shown(q);
        p.drawPolyline(line);
    }
    if (result_) {
        const auto& h = result_->to_photo;
        QPolygonF line;
        for (const Vec2 q : result_->outline.a) {
            const double w = h[6] * q.x + h[7] * q.y + h[8];
            line << shown({(h[0] * q.x + h[1] * q.y + h[2]) / w, (h[3] * q.x + h[4] * q.y + h[5]) / w});
        }
        p.setBrush(Qt::NoBrush);
        p.setPen(QPen(c.slip, 3.4));
        p.drawPolygon(line);
        p.setPen(QPen(c.chalk, 1.8));
        p.drawPolygon(line);
    }
    QPolygonF frame;
    for (const Vec2 q : corners) frame << shown(q);
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(c.brass, 1.4, Qt::DashLine));
    if (known == Known::rectangle) {
        p.drawPolygon(frame);
    } else {
        p.drawLine(frame[0], frame[1]);
        p.drawLine(frame[2], frame[3]);
    }
    for (const QPointF& q : frame) {
        p.setPen(QPen(c.brass_dark, 2));
        p.drawEllipse(q, 8, 8);
        p.drawLine(q - QPointF(13, 0), q + QPointF(13, 0));
        p.drawLine(q - QPointF(0, 13), q + QPointF(0, 13));
    }
}

void PhotoCanvas::mousePressEvent(QMouseEvent* e) {
    if (photo_.isNull()) return;
    if (brush != Brush::none) {
        strokes.push_back({{photo_px(e->position())}, std::max(photo_.width(), photo_.height()) / 60.0, brush == Brush::slab});
        return update();
    }
    held_ = -1;
    for (int i = 0; i < 4; ++i)
        if (QLineF(shown(corners[static_cast<std::size_t>(i)]), e->position()).length() < 16) held_ = i;
}

void PhotoCanvas::mouseMoveEvent(QMouseEvent* e) {
    if (!(e->buttons() & Qt::LeftButton)) return;
    if (brush != Brush::none && !strokes.empty()) {
        strokes.back().points_px.push_back(photo_px(e->position()));
        update();
    } else if (held_ >= 0) {
        corners[static_cast<std::size_t>(held_)] = photo_px(e->position());
        update();
    }
}

void PhotoCanvas::mouseReleaseEvent(QMouseEvent*) {
    held_ = -1;
    Q_EMIT changed();
}

PhotoPage::PhotoPage(Session& session, LongWork& work, QWidget* parent)
    : QWidget(parent),
      session_(session),
      work_(work),
      canvas_(new PhotoCanvas),
      title_(new QLabel),
      about_(new QLabel),
      find_(new QPushButton(tr("Find the slab"))),
      new_slab_(new QPushButton(tr("Take it as a new slab"))),
      other_face_(new QPushButton) {
    setObjectName("photo_page");
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(24, 16, 24, 16);
    row->setSpacing(24);
    row->addWidget(canvas_, 1);
    auto* side = new QVBoxLayout;
    title_->setFont(theme::figures(16));
    title_->setWordWrap(true);
    side->addWidget(title_);
    what_ = new QLabel;
    what_->setWordWrap(true);
    side->addWidget(what_);
    auto* ways = new QButtonGroup(this);
    for (const bool lengths : {false, true}) {
        auto* b = new QPushButton(lengths ? tr("Two lengths are known") : tr("A rectangle is known"));
        b->setObjectName(lengths ? "known_lengths" : "known_rectangle");
        b->setProperty("quiet", true);
        b->setCheckable(true);
        b->setChecked(!lengths);
        ways->addButton(b, lengths ? 1 : 0);
        side->addWidget(b);
    }
    connect(ways, &QButtonGroup::idClicked, this, [this](int id) {
        canvas_->known = static_cast<PhotoCanvas::Known>(id);
        result_.reset();
        refresh();
    });
    auto* grid = new QGridLayout;
    int line = 0;
    const auto number = [&](const QString& name, const QString& label, double low, double high, double* value) {
        auto* f = new MeasureField(name, Kind::fine);
        f->set_range(low, high);
        f->line()->setAccessibleName(label);
        auto* text = new QLabel(label);
        if (value == &width_mm_) width_label_ = text;
        if (value == &height_mm_) height_label_ = text;
        grid->addWidget(text, line, 0);
        grid->addWidget(f, line++, 1);
        fields_.emplace_back(f, value);
        connect(f, &MeasureField::committed, this, [this, value](std::optional<double> v) {
            if (v) *value = *v;
            result_.reset();
            refresh();
        });
    };
    number("photo_width", tr("It is wide, left to right"), 10, 20000, &width_mm_);
    number("photo_height", tr("It is high, up and down"), 10, 20000, &height_mm_);
    number("photo_tolerance", tr("Smooth the edge by at most"), 0.1, 20, &tolerance_mm_);
    auto* lines = new QWidget;
    grid->setContentsMargins(0, 0, 0, 0);
    grid->setVerticalSpacing(4);
    lines->setLayout(grid);
    lines->setSizePolicy(QSizePolicy::Preferred, QSizePolicy::Fixed);
    side->addWidget(lines);
    side->addSpacing(6);
    auto* brushes = new QButtonGroup(this);
    int id = 0;
    for (const auto& [name, text] : {std::pair("brush_none", tr("Move the marks")), std::pair("brush_slab", tr("Paint: this is slab")),
                                     std::pair("brush_not", tr("Paint: this is not"))}) {
        auto* b = new QPushButton(text);
        b->setObjectName(name);
        b->setProperty("quiet", true);
        b->setCheckable(true);
        b->setChecked(id == 0);
        brushes->addButton(b, id++);
        side->addWidget(b);
    }
    connect(brushes, &QButtonGroup::idClicked, this, [this](int i) { canvas_->brush = static_cast<PhotoCanvas::Brush>(i); });
    auto* wipe = new QPushButton(tr("Wipe the paint off"));
    wipe->setObjectName("wipe_strokes");
    wipe->setProperty("quiet", true);
    connect(wipe, &QPushButton::clicked, this, [this] {
        canvas_->strokes.clear();
        canvas_->update();
    });
    side->addWidget(wipe);
    find_->setObjectName("photo_find");
    find_->setProperty("next", true);
    connect(find_, &QPushButton::clicked, this, &PhotoPage::find);
    side->addWidget(find_);
    about_->setObjectName("photo_about");
    about_->setWordWrap(true);
    about_->setFont(theme::figures(11));
    side->addWidget(about_);
    new_slab_->setObjectName("photo_take");
    new_slab_->setProperty("quiet", true);
    connect(new_slab_, &QPushButton::clicked, this, [this] { take(false); });
    other_face_->setObjectName("photo_other");
    other_face_->setProperty("quiet", true);
    connect(other_face_, &QPushButton::clicked, this, [this] { take(true); });
    side->addWidget(new_slab_);
    side->addWidget(other_face_);
    side->addStretch(1);
    auto* leave = new QPushButton(tr("Back to the bench"));
    leave->setObjectName("photo_back");
    leave->setProperty("quiet", true);
    connect(leave, &QPushButton::clicked, this, &PhotoPage::back);
    side->addWidget(leave);
    auto* panel = new QWidget;
    panel->setLayout(side);
    panel->setFixedWidth(theme::grown(300));
    row->addWidget(panel);
    connect(canvas_, &PhotoCanvas::changed, this, [this] {
        result_.reset();
        refresh();
    });
    connect(&session_, &Session::changed, this, &PhotoPage::refresh);
    refresh();
}

void PhotoPage::open(const QString& path) {
    struct Read {
        QImage shown;
        Picture pixels;
    };
    work_.run(
        tr("Reading the photograph"),
        [path](const Work&) {
            QByteArray bytes = QByteArray::fromStdString(read_file(path.toStdString(), most_picture_bytes));
            QBuffer in(&bytes);
            QImageReader reader(&in);
            if (const QSize s = reader.size(); s.isValid() && static_cast<double>(s.width()) * s.height() > most_picture_points)
                throw FormatError(tr("%1 says it has %2 × %3 points, more than %4 million. Make it smaller and try again")
                                      .arg(QFileInfo(path).fileName())
                                      .arg(s.width())
                                      .arg(s.height())
                                      .arg(most_picture_points / 1e6)
                                      .toStdString());
            reader.setAutoTransform(true);  // the camera was held some way
            Read read;
            read.shown = reader.read().convertToFormat(QImage::Format_RGB888);
            if (read.shown.isNull())
                throw FormatError(tr("%1 can't be read as a picture: choose a JPEG or PNG").arg(QFileInfo(path).fileName()).toStdString());
            read.pixels = Picture(read.shown.width(), read.shown.height());
            for (int y = 0; y < read.shown.height(); ++y)
                std::copy_n(read.shown.constScanLine(y), static_cast<std::size_t>(read.shown.width()) * 3, read.pixels.at(0, y));
            return read;
        },
        [this, path](Read& read) {
            picture_ = std::move(read.pixels);
            name_ = QFileInfo(path).completeBaseName().toStdString();
            result_.reset();
            canvas_->show_photo(read.shown);
            refresh();
            Q_EMIT opened();
        });
}

void PhotoPage::refresh() {
    title_->setText(name_.empty() ? tr("A photograph") : QString::fromStdString(name_));
    for (const auto& [field, value] : fields_) field->show_value(*value, session_.units());
    const bool lengths = canvas_->known == PhotoCanvas::Known::lengths;
    what_->setText(
        lengths ? tr("For a photograph taken straight from above: drag the ends of one dashed line along a known length of the slab, "
                     "of the other across it.")
                : tr("Drag the four marks to the corners of something of known size that lies in the slab's face: a sheet, a square, "
                     "a frame of battens. Say how large it is."));
    width_label_->setText(lengths ? tr("The line along is") : tr("It is wide, left to right"));
    height_label_->setText(lengths ? tr("The line across is") : tr("It is high, up and down"));
    canvas_->show_outline(result_);
    find_->setEnabled(!picture_.empty());
    new_slab_->setVisible(result_.has_value());
    const Slab* slab = session_.slab();
    other_face_->setVisible(result_.has_value() && slab && slab->outline);
    if (slab) other_face_->setText(tr("Take it as face B of %1").arg(QString::fromStdString(slab->name)));
    if (result_) {
        const Box b = bounds(result_->outline.a);
        const Units& u = session_.units();
        const auto text = [&](Quantity q) { return QString::fromStdString(format(q, u)); };
        about_->setText(tr("%1 × %2, the edge within %3").arg(text(mm(b.width())), text(mm(b.height())), text(fine(result_->error_mm))));
    } else {
        about_->clear();
    }
}

void PhotoPage::find() {
    PhotoOrder order;
    // The first corner is the upper left, the size is as it lies in the photograph.
    const auto& k = canvas_->corners;
    if (canvas_->known == PhotoCanvas::Known::lengths) order.known = KnownLengths{{k[0], k[1]}, {k[2], k[3]}, width_mm_, height_mm_};
    else order.known = KnownRectangle{k, width_mm_, height_mm_};
    order.strokes = canvas_->strokes;
    order.tolerance_mm = tolerance_mm_;
    work_.run(
        tr("Finding the slab"), [picture = picture_, order](const Work& w) { return slab_from_photo(picture, order, w); },
        [this](const PhotoResult& r) {
            result_ = r;
            refresh();
        });
}

void PhotoPage::take(bool other) {
    if (!result_) return;
    Store* store = session_.store();
    // Named by its own bytes: a new picture never takes the place of one that an earlier revision shows.
    const auto keep = [&] {
        const std::string bytes = to_jpeg(result_->face, 88);
        const std::string key = attachment_key(bytes);
        if (!store || session_.read_only()) return key;
        try {
            store->attach(key, bytes);
            Q_EMIT taken(QString::fromStdString(key));
        } catch (const StoreError& e) {
            Q_EMIT say(QString::fromStdString(e.what()), true);
        }
        return key;
    };
    if (!other) {
        Slab slab;
        slab.name = name_;
        slab.outline = result_->outline;
        slab.picture_a = result_->place;
        slab.picture_a->key = keep();
        add_slab(session_, slab, tr("Slab from a photograph"));
        Q_EMIT say(tr("The slab stands on the rack. Type a station with its thickness, or photograph its other face; cracks, knots and rot "
                      "are painted over the picture."),
                   false);
        Q_EMIT back();
        return;
    }
    try {
        const Slab& now = *session_.slab();
        const TracedOutline both = match_outlines(*now.outline, result_->outline);
        FacePicture place = result_->place;
        place.key = keep();
        session_.edit_slab(tr("The other face from a photograph"), [&](Slab& s) { take_other_face(s, both, result_->outline, place); });
        Q_EMIT back();
    } catch (const PhotoError& e) {
        Q_EMIT say(tr("%1. Nothing was changed.").arg(QString::fromUtf8(e.what())), true);
    }
}

}  // namespace yb
