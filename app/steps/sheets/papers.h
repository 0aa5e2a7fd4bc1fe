// Papers that are handed to somebody: what is agreed, the offer with its ways, what is to be bought, a job's page of the book, the label.
#pragma once

#include <functional>
#include <vector>

#include <QImage>
#include <QString>

#include "app/steps/sheets/flow.h"
#include "core/shop/book/book.h"
#include "core/shop/ways/ways.h"

namespace yb {

struct Job;
struct Plan;
struct Shop;

/// Writes pages of the shop's paper as PDF: letters as large as let each matter stay together. @returns an empty text, or what went wrong
/// in a sentence.
QString write_paper(const QString& path, const Shop& shop, const Flow::Words& words, const std::function<void(Flow&)>& write);

/// What is agreed, with room for a name and a signature. @param on ISO date.
QString write_agreement_pdf(const QString& path, const Job& job, const Plan& plan, const Shop& shop, const std::string& on);
/// Every line of a job in the book, oldest first, corrections below what they correct.
QString write_book_pdf(const QString& path, const Job& job, const std::vector<BookLine>& lines, const Shop& shop);
/// The label of the finished piece: shop, year, wood, number in the book.
QString write_label_pdf(const QString& path, const Job& job, const Plan& plan, const Shop& shop);

/// A way as the offer shows it.
struct OfferedWay {
    const Job* job = nullptr;
    const Plan* plan = nullptr;
    QString name;
    QImage picture;
};
/// The offer, without the maker's own figures. @param ways one at least, each with its plan. @param on ISO date of the offer.
QString write_offer_pdf(const QString& path, const std::vector<OfferedWay>& ways, const Shop& shop, const std::string& on);
/// What is to be bought, by kind.
QString write_shopping_pdf(const QString& path, const Job& job, const Plan& plan, const Shop& shop);

}  // namespace yb
