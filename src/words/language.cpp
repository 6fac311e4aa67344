// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/language.h"
#include <QCoreApplication>
#include <QLibraryInfo>
#include <QLocale>
#include <QTranslator>

namespace hinge {

void speakUsersLanguage() {
  const QString ours = QCoreApplication::applicationDirPath() +
                       QStringLiteral("/../share/hinge-lantern/translations");
  const QString qts = QLibraryInfo::path(QLibraryInfo::TranslationsPath);
  for (const auto& [name, folder] : {std::pair{QStringLiteral("qtbase"), qts},
                                     std::pair{QStringLiteral("hinge-lantern"), ours}}) {
    auto* translator = new QTranslator(QCoreApplication::instance());
    if (translator->load(QLocale(), name, QStringLiteral("_"), folder))
      QCoreApplication::installTranslator(translator);
    else
      delete translator;
  }
}

} // namespace hinge
