// SPDX-License-Identifier: GPL-3.0-or-later
// Private to core/footage: owners for what the FFmpeg libraries hand out.
#pragma once

extern "C" {
#include <libavcodec/avcodec.h>
#include <libavformat/avformat.h>
#include <libswscale/swscale.h>
}

#include <filesystem>
#include <memory>
#include <string>

#include "core/units/result.h"

namespace fin::av {

struct CloseInput {
  void operator()(AVFormatContext* c) const { avformat_close_input(&c); }
};
struct FreeCodec {
  void operator()(AVCodecContext* c) const { avcodec_free_context(&c); }
};
struct FreePacket {
  void operator()(AVPacket* p) const { av_packet_free(&p); }
};
struct FreeFrame {
  void operator()(AVFrame* f) const { av_frame_free(&f); }
};
struct FreeScaler {
  void operator()(SwsContext* s) const { sws_freeContext(s); }
};

using Input = std::unique_ptr<AVFormatContext, CloseInput>;
using Codec = std::unique_ptr<AVCodecContext, FreeCodec>;
using PacketPtr = std::unique_ptr<AVPacket, FreePacket>;
using FramePtr = std::unique_ptr<AVFrame, FreeFrame>;
using Scaler = std::unique_ptr<SwsContext, FreeScaler>;

std::string reason(int code);
/// Keeps the libraries from writing to standard error; what goes wrong is reported by their codes.
void beQuiet();

enum class Wanted { Picture, Sound };

struct OpenedInput {
  Input format;
  AVStream* stream = nullptr;
};
/// Opens a local file and finds the stream that is wanted; the others are passed over. Unreadable, with the
/// file's name, otherwise.
Result<OpenedInput> openInput(const std::filesystem::path& path, Wanted wanted = Wanted::Picture);

/// A decoder for a stream; null where nothing can decode it. `threads` 0 for as many as there are cores.
Codec openDecoder(const AVStream& stream, int threads);

}  // namespace fin::av
