// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/av_handles.h"

#include <fmt/format.h>

namespace fin::av {
namespace {

tl::unexpected<Error> unreadable(const std::filesystem::path& path, const std::string& why) {
  return failure(ErrorCode::Unreadable, fmt::format("{}: {}", path.filename().string(), why), path.string());
}

bool isPicture(const AVStream& stream) {
  const AVCodecParameters& p = *stream.codecpar;
  const bool text = p.codec_id == AV_CODEC_ID_ANSI || p.codec_id == AV_CODEC_ID_XBIN ||
                    p.codec_id == AV_CODEC_ID_BINTEXT || p.codec_id == AV_CODEC_ID_IDF;
  return p.codec_type == AVMEDIA_TYPE_VIDEO && !text &&
         (stream.disposition & AV_DISPOSITION_ATTACHED_PIC) == 0;
}

}  // namespace

std::string reason(int code) {
  char text[AV_ERROR_MAX_STRING_SIZE] = {};
  return av_strerror(code, text, sizeof text) == 0 ? text : "unknown error";
}

void beQuiet() {
  av_log_set_level(AV_LOG_QUIET);
}

Codec openDecoder(const AVStream& stream, int threads) {
  const AVCodec* decoder = avcodec_find_decoder(stream.codecpar->codec_id);
  Codec codec(decoder != nullptr ? avcodec_alloc_context3(decoder) : nullptr);
  if (!codec) return nullptr;
  avcodec_parameters_to_context(codec.get(), stream.codecpar);
  codec->pkt_timebase = stream.time_base;
  codec->thread_count = threads;
  if (avcodec_open2(codec.get(), decoder, nullptr) < 0) return nullptr;
  return codec;
}

Result<OpenedInput> openInput(const std::filesystem::path& path, Wanted wanted) {
  beQuiet();
  std::error_code ignored;
  if (!std::filesystem::exists(path, ignored)) return unreadable(path, "there is no such file");
  if (!std::filesystem::is_regular_file(path, ignored)) return unreadable(path, "this is not a file");
  if (std::filesystem::file_size(path, ignored) == 0) {
    return unreadable(path, "the file is empty (was the card pulled too early?)");
  }

  // "file:" keeps a name with a colon from being taken for an address; so does the whitelist for
  // what a playlist inside the file may name.
  AVDictionary* options = nullptr;
  av_dict_set(&options, "protocol_whitelist", "file", 0);
  AVFormatContext* raw = nullptr;
  const int opened = avformat_open_input(&raw, ("file:" + path.string()).c_str(), nullptr, &options);
  av_dict_free(&options);
  if (opened < 0) return unreadable(path, "not a readable clip (" + reason(opened) + ")");

  OpenedInput input{Input(raw), nullptr};
  raw->flags |= AVFMT_FLAG_GENPTS;
  if (const int found = avformat_find_stream_info(raw, nullptr); found < 0) {
    return unreadable(path, "not a readable clip (" + reason(found) + ")");
  }
  const auto isWanted = [wanted](const AVStream& stream) {
    return wanted == Wanted::Picture ? isPicture(stream) : stream.codecpar->codec_type == AVMEDIA_TYPE_AUDIO;
  };
  for (unsigned i = 0; i < raw->nb_streams; ++i) {
    if (input.stream == nullptr && isWanted(*raw->streams[i])) input.stream = raw->streams[i];
  }
  if (input.stream == nullptr) {
    return unreadable(
        path, wanted == Wanted::Picture ? "there is no moving picture in it" : "there is no sound in it");
  }
  for (unsigned i = 0; i < raw->nb_streams; ++i) {
    if (raw->streams[i] != input.stream) raw->streams[i]->discard = AVDISCARD_ALL;
  }
  return input;
}

}  // namespace fin::av
