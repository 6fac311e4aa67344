// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once
#include <QRegularExpression>
#include <QSet>
#include <QTranslator>

namespace hinge::test {

/// A language in which every letter of a source text is another one (full width), while what is put
/// into the text stays as it is: what a user reads in plain letters has escaped translation, unless
/// it is a name, a key or a unit.
class PseudoLanguage : public QTranslator {
  Q_OBJECT
public:
  bool isEmpty() const override { return false; }
  QString translate(const char*, const char* source, const char*, int) const override {
    QString out;
    const QString text = QString::fromUtf8(source);
    for (qsizetype k = 0; k < text.size(); ++k) {
      if (text[k] == QLatin1Char('%') && k + 1 < text.size()) { // %1, %n
        out += text[k];
        out += text[++k];
        continue;
      }
      if (text[k] == QLatin1Char('{')) { // {who}
        const qsizetype end = text.indexOf(QLatin1Char('}'), k);
        out += text.mid(k, end - k + 1);
        k = end;
        continue;
      }
      const char16_t c = text[k].unicode();
      const bool letter = (c >= u'a' && c <= u'z') || (c >= u'A' && c <= u'Z');
      out += letter ? QChar(static_cast<char16_t>(c - u'!' + u'\uFF01')) : text[k];
    }
    return out;
  }
};

/// Words of three plain letters and more that are none of the allowed ones.
inline QStringList plainWords(const QString& text, const QSet<QString>& allowed) {
  static const QRegularExpression word(QStringLiteral("[A-Za-z][A-Za-z]{2,}"));
  QStringList found;
  for (auto it = word.globalMatch(text); it.hasNext();) {
    const QString one = it.next().captured();
    if (!allowed.contains(one)) found << one;
  }
  return found;
}

} // namespace hinge::test
