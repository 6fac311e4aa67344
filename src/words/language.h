// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace hinge {

/// Installs translations for the user's language, ours and Qt's own, where they are there: beside
/// the program in ../share/hinge-lantern/translations (hinge-lantern_LANGUAGE.qm). Needs an
/// application object. Without any the program speaks English.
void speakUsersLanguage();

} // namespace hinge
