#include "app/ground/theme/theme.h"

#include <QApplication>
#include <QFontDatabase>
#include <QPainter>
#include <QPainterPath>

#include <algorithm>
#include <array>
#include <cmath>

/// Resources of a static library have to be asked for; the macro wants to stand outside of namespaces.
static void load_assets() { Q_INIT_RESOURCE(assets); }

namespace yb::theme {

const Palette& colours() {
    static const Palette p;
    return p;
}

namespace {
double scale = 1;
}

void set_text_scale(double s) { scale = std::clamp(s, 1.0, 2.0); }
int grown(double px) { return static_cast<int>(std::lround(px * scale)); }

QFont text(double points, bool strong) {
    QFont f(QStringLiteral("Cabin"));
    f.setPointSizeF(points * scale);
    if (strong) f.setWeight(QFont::DemiBold);
    return f;
}

QFont figures(double points, bool light) {
    QFont f(QStringLiteral("Roboto Slab"));
    f.setPointSizeF(points * scale);
    if (light) f.setWeight(QFont::Light);
    return f;
}

QColor heat(double share) {
    static const std::array<QColor, 4> ramp{QColor("#F1E7CF"), QColor("#E2B65A"), QColor("#C4622D"), QColor("#6E1F1B")};
    const double at = std::clamp(share, 0.0, 1.0) * (ramp.size() - 1);
    const auto k = std::min<std::size_t>(static_cast<std::size_t>(at), ramp.size() - 2);
    const auto t = static_cast<float>(at - static_cast<double>(k));
    const QColor& a = ramp[k];
    const QColor& b = ramp[k + 1];
    return QColor::fromRgbF(a.redF() + (b.redF() - a.redF()) * t, a.greenF() + (b.greenF() - a.greenF()) * t,
                            a.blueF() + (b.blueF() - a.blueF()) * t);
}

WoodTone tone_of(const std::string& s) {
    const auto has = [&](const char* w) { return s.find(w) != std::string::npos; };
    if (has("walnut")) return {QColor("#A07A58"), QColor("#6B4A33"), QColor("#3D2A1C")};
    if (has("cherry") || has("redwood") || has("cedar")) return {QColor("#CE9A72"), QColor("#A86F4B"), QColor("#5A3825")};
    if (has("butternut") || has("chestnut") || has("oak") || has("elm")) return {QColor("#CFAE80"), QColor("#A98353"), QColor("#5C4630")};
    if (has("maple") || has("birch") || has("basswood") || has("poplar")) return {QColor("#E3CDA4"), QColor("#C9A675"), QColor("#6B5438")};
    if (has("hackberry") || has("ash")) return {QColor("#DCC79C"), QColor("#B59B6C"), QColor("#635136")};
    return {QColor("#DDBF8F"), QColor("#BC9260"), QColor("#5C4630")};
}

QColor ink_of(Severity s) {
    const Palette& c = colours();
    return s == Severity::stop ? c.madder : s == Severity::watch ? c.ochre : c.moss;
}

void draw_sign(QPainter& p, Severity s, const QRectF& r) {
    p.save();
    p.setRenderHint(QPainter::Antialiasing);
    p.setPen(Qt::NoPen);
    p.setBrush(ink_of(s));
    if (s == Severity::stop) {
        p.drawRect(r);
    } else if (s == Severity::watch) {
        QPainterPath t;
        t.moveTo(r.center().x(), r.top());
        t.lineTo(r.bottomRight());
        t.lineTo(r.bottomLeft());
        t.closeSubpath();
        p.drawPath(t);
    } else {
        p.drawEllipse(r);
    }
    p.restore();
}

void apply(QApplication& app) {
    load_assets();
    for (const char* file : {"Cabin-Regular.otf", "Cabin-Italic.otf", "Cabin-SemiBold.otf", "RobotoSlab-Light.otf",
                             "RobotoSlab-Regular.otf", "RobotoSlab-Bold.otf"})
        if (QFontDatabase::addApplicationFont(QStringLiteral(":/fonts/") + QLatin1String(file)) < 0)
            qWarning("The font %s is missing from the program.", file);
    app.setStyle(QStringLiteral("Fusion"));
    app.setFont(text(10));
    const Palette& c = colours();
    QPalette p;
    p.setColor(QPalette::Window, c.paper);
    p.setColor(QPalette::Base, c.slip);
    p.setColor(QPalette::AlternateBase, c.paper);
    p.setColor(QPalette::Button, c.paper);
    for (const auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText, QPalette::ToolTipText}) p.setColor(role, c.ink);
    p.setColor(QPalette::ToolTipBase, c.slip);
    p.setColor(QPalette::PlaceholderText, c.pencil);
    p.setColor(QPalette::Highlight, c.brass);
    p.setColor(QPalette::HighlightedText, QColor(Qt::white));
    p.setColor(QPalette::Link, c.chalk);
    for (const auto role : {QPalette::WindowText, QPalette::Text, QPalette::ButtonText}) p.setColor(QPalette::Disabled, role, c.faint);
    app.setPalette(p);
    const QString css = QStringLiteral(R"(
        QMenuBar { background: %1; border-bottom: 1px solid %6; }
        QMenuBar::item { padding: 3px 9px; background: transparent; }
        QMenuBar::item:selected, QMenu::item:selected { background: %2; color: %3; }
        QMenu { background: %7; border: 1px solid %6; }
        QMenu::item { padding: 4px 24px; }
        QMenu::item:disabled { color: %8; }
        QToolTip { background: %7; color: %3; border: 1px solid %4; padding: 4px; }
        QPushButton[plain="true"] { border: none; background: transparent; color: %5; padding: 1px 2px; text-align: left; }
        QPushButton[plain="true"]:hover { text-decoration: underline; }
        QPushButton[plain="true"]:disabled { color: %8; }
        QPushButton[plain="true"]:focus { border-bottom: 2px solid %4; }
        QPushButton[next="true"] { background: %3; color: %7; border: none; padding: 7px; border-radius: 2px; }
        QPushButton[next="true"]:hover { background: #3a352e; }
        QPushButton[next="true"]:focus { border: 2px solid %4; }
        QPushButton[quiet="true"] { background: transparent; border: 1px solid %6; border-radius: 2px; padding: 3px 8px; color: %3; }
        QPushButton[quiet="true"]:checked { background: %3; color: %7; }
        QPushButton[quiet="true"]:hover { border-color: %4; }
        QPushButton[quiet="true"]:focus { border-color: %4; }
        QLineEdit[measure="true"] { background: transparent; border: none; border-bottom: 1px solid %6; padding: 1px 2px; }
        QLineEdit[measure="true"]:focus { border-bottom: 2px solid %4; }
        QLineEdit[measure="true"][wrong="true"] { border-bottom: 2px solid %9; color: %9; }
        QComboBox { background: transparent; border: none; border-bottom: 1px solid %6; padding: 1px 2px; }
        QComboBox:focus { border-bottom: 2px solid %4; }
        QComboBox QAbstractItemView { background: %7; selection-background-color: %2; selection-color: %3; }
        QRadioButton::indicator { width: 13px; height: 13px; border-radius: 7px; border: 1px solid %3; background: %7; }
        QRadioButton::indicator:checked { background: qradialgradient(cx:0.5, cy:0.5, radius:0.5, fx:0.5, fy:0.5,
            stop:0 %4, stop:0.55 %4, stop:0.62 %7, stop:1 %7); }
        QRadioButton:focus { color: %4; }
        QFrame#slip_paper, QWidget#slip_page { background: %7; }
        QLabel[in_line="pencil"] { color: %10; }
        QLabel[in_line="chalk"] { color: %5; }
        QLabel[in_line="ink"] { color: %3; }
        QScrollBar:vertical { width: 9px; background: transparent; }
        QScrollBar::handle:vertical { background: %6; border-radius: 4px; min-height: 30px; }
        QScrollBar:horizontal { height: 9px; background: transparent; }
        QScrollBar::handle:horizontal { background: %6; border-radius: 4px; min-width: 30px; }
        QScrollBar::add-line, QScrollBar::sub-line { width: 0; height: 0; }
        QTableView { background: %7; gridline-color: %6; border: 1px solid %6; selection-background-color: %2; selection-color: %3; }
        QTableView::item:focus { border: 2px solid %4; }
        QHeaderView::section { background: %1; border: none; border-bottom: 1px solid %6; border-right: 1px solid %6; padding: 3px 5px; color: %10; }
    )")
                            .arg(c.paper.name(), c.bench.name(), c.ink.name(), c.brass.name(), c.chalk.name(), c.rule.name(), c.slip.name(),
                                 c.faint.name(), c.madder.name())
                            .arg(c.pencil.name());
    app.setStyleSheet(css);
}

}  // namespace yb::theme
