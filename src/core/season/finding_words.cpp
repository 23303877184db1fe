// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/season/finding_words.h"

#include <algorithm>
#include <cctype>
#include <sstream>

namespace fin {
namespace {

std::string small(std::string_view text) {
  std::string out(text);
  for (char& c : out) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
  return out;
}

bool beginsAWord(const std::string& text, const std::string& word) {
  for (std::size_t at = text.find(word); at != std::string::npos; at = text.find(word, at + 1)) {
    if (at == 0 || std::isalnum(static_cast<unsigned char>(text[at - 1])) == 0) return true;
  }
  return false;
}

}  // namespace

std::vector<std::size_t> found(const std::vector<Findable>& all, std::string_view words) {
  std::vector<std::string> wanted;
  std::istringstream in(small(words));
  for (std::string word; in >> word;) wanted.push_back(word);
  std::vector<std::size_t> out;
  for (std::size_t i = 0; i < all.size(); ++i) {
    const std::string text = wanted.empty() ? std::string() : small(all[i].text);
    if (std::all_of(wanted.begin(), wanted.end(),
                    [&text](const std::string& w) { return beginsAWord(text, w); }))
      out.push_back(i);
  }
  return out;
}

}  // namespace fin
