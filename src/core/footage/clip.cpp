// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/clip.h"

#include "core/footage/av_handles.h"
#include "core/footage/decoded_frames.h"

extern "C" {
#include <libavutil/display.h>
}

#include <fmt/format.h>
#include <cmath>

namespace fin {
namespace {

/// How far the picture is to be turned clockwise for showing: 0, 90, 180 or 270.
int clockwiseTurn(const AVStream& stream) {
  const auto* matrix = av_stream_get_side_data(&stream, AV_PKT_DATA_DISPLAYMATRIX, nullptr);
  if (matrix == nullptr) return 0;
  const double anticlockwise = av_display_rotation_get(reinterpret_cast<const std::int32_t*>(matrix));
  if (std::isnan(anticlockwise)) return 0;
  const int quarter = static_cast<int>(std::lround(-anticlockwise / 90.0));
  return ((quarter % 4) + 4) % 4 * 90;
}

Result<std::vector<ClipIndex::Packet>> scanPackets(AVFormatContext& format, int stream) {
  std::vector<ClipIndex::Packet> packets;
  const av::PacketPtr packet(av_packet_alloc());
  while (av_read_frame(&format, packet.get()) >= 0) {
    if (packet->stream_index == stream) {
      const std::int64_t dts = packet->dts != AV_NOPTS_VALUE ? packet->dts : packet->pts;
      const std::int64_t pts = packet->pts != AV_NOPTS_VALUE ? packet->pts : dts;
      if (pts != AV_NOPTS_VALUE) {
        packets.push_back(
            {pts, dts, (packet->flags & AV_PKT_FLAG_KEY) != 0, (packet->flags & AV_PKT_FLAG_DISCARD) != 0});
      }
    }
    av_packet_unref(packet.get());
  }
  return packets;
}

bool hasSound(const AVFormatContext& format) {
  for (unsigned i = 0; i < format.nb_streams; ++i) {
    if (format.streams[i]->codecpar->codec_type == AVMEDIA_TYPE_AUDIO) return true;
  }
  return false;
}

}  // namespace

Result<std::shared_ptr<const Clip>> Clip::open(const std::filesystem::path& path) {
  auto input = av::openInput(path);
  if (!input) return tl::unexpected(input.error());
  const AVStream& stream = *input->video;

  ClipInfo info;
  info.path = path;
  info.container = input->format->iformat->name;
  info.codec = avcodec_get_name(stream.codecpar->codec_id);
  info.clockwiseTurn_deg = clockwiseTurn(stream);
  info.width_px = stream.codecpar->width;
  info.height_px = stream.codecpar->height;
  if (info.clockwiseTurn_deg % 180 != 0) std::swap(info.width_px, info.height_px);
  info.hasSound = hasSound(*input->format);

  auto packets = scanPackets(*input->format, stream.index);
  if (!packets) return tl::unexpected(packets.error());
  ClipIndex index(std::move(*packets), av_q2d(stream.time_base));
  if (index.frameCount() == 0 || info.width_px <= 0 || info.height_px <= 0) {
    return failure(ErrorCode::Unreadable, path.filename().string() + ": no frame can be read from it",
                   path.string());
  }
  if (index.uneven()) {
    info.warnings.emplace_back(
        "the frames are not evenly spaced in time; every frame's own time stamp is used");
  }
  return std::shared_ptr<const Clip>(new Clip(std::move(info), std::move(index)));
}

Result<std::unique_ptr<FrameSource>> Clip::reader(std::shared_ptr<const Clip> clip, ReaderOptions options) {
  return DecodedFrames::open(std::move(clip), options);
}

}  // namespace fin
