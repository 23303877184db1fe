// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/footage/clip.h"

#include "core/footage/av_handles.h"
#include "core/footage/decoded_frames.h"
#include "core/footage/field_frames.h"
#include "core/footage/index_store.h"

extern "C" {
#include <libavutil/display.h>
}

#include <fmt/format.h>
#include <algorithm>
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

constexpr double kWidestPixel = 4.0;  ///< no camera stores pixels wider or narrower than this
constexpr int kLargestPicture_px = 16384;
constexpr double kClockBack_s = 0.2;  ///< a clock that jumps back by more has started anew

/// Collects the packets of the picture stream and brings the stretches of a clock that starts anew onto one
/// line: what comes after follows the last frame at the usual spacing.
class PacketScan {
 public:
  PacketScan(const AVFormatContext& format, const AVStream& stream)
      : stream_(stream.index),
        mayStartAnew_((format.iformat->flags & AVFMT_TS_DISCONT) != 0),
        back_ticks_(static_cast<std::int64_t>(kClockBack_s / av_q2d(stream.time_base))),
        tick_s_(av_q2d(stream.time_base)) {}

  void add(const AVPacket& packet) {
    if (packet.stream_index != stream_) return;
    const std::int64_t dts = packet.dts != AV_NOPTS_VALUE ? packet.dts : packet.pts;
    const std::int64_t pts = packet.pts != AV_NOPTS_VALUE ? packet.pts : dts;
    if (pts == AV_NOPTS_VALUE) return;
    if (mayStartAnew_ && !packets_.empty() && dts + shift_ < packets_.back().dts - back_ticks_) {
      shift_ = packets_.back().dts + usual_ - dts;
      restarts_.push_back({packet.pos, shift_});
    } else if (!packets_.empty()) {
      usual_ = std::max<std::int64_t>(dts + shift_ - packets_.back().dts, 1);
    }
    packets_.push_back({pts + shift_, dts + shift_, (packet.flags & AV_PKT_FLAG_KEY) != 0,
                        (packet.flags & AV_PKT_FLAG_DISCARD) != 0, packet.pos});
  }
  ClipIndex index() { return {std::move(packets_), tick_s_, std::move(restarts_)}; }

 private:
  int stream_;
  bool mayStartAnew_;
  std::int64_t back_ticks_;
  double tick_s_;
  std::int64_t shift_ = 0;
  std::int64_t usual_ = 1;  ///< ticks from one packet to the next, as seen last
  std::vector<ClipIndex::Packet> packets_;
  std::vector<ClipIndex::Restart> restarts_;
};

Result<ClipIndex> scanPackets(AVFormatContext& format, const AVStream& stream, const JobControl& job) {
  const auto size = static_cast<double>(std::max<std::int64_t>(avio_size(format.pb), 1));
  PacketScan scan(format, stream);
  const av::PacketPtr packet(av_packet_alloc());
  while (av_read_frame(&format, packet.get()) >= 0) {
    scan.add(*packet);
    av_packet_unref(packet.get());
    if (job.cancelled()) return failure(ErrorCode::Cancelled, "looking through the clip was stopped");
    job.report(static_cast<double>(avio_tell(format.pb)) / size);
  }
  return scan.index();
}

/// Some cameras write the rate they filmed at beside the one it plays at.
std::optional<Hertz> writtenRate(const AVFormatContext& format, const AVStream& stream) {
  for (const AVDictionary* words : {format.metadata, stream.metadata}) {
    const AVDictionaryEntry* entry = nullptr;
    while ((entry = av_dict_get(words, "", entry, AV_DICT_IGNORE_SUFFIX)) != nullptr) {
      std::string key = entry->key;
      std::transform(key.begin(), key.end(), key.begin(), [](unsigned char c) { return std::tolower(c); });
      const bool fits = key.find("capture") != std::string::npos &&
                        (key.find("fps") != std::string::npos || key.find("rate") != std::string::npos);
      const double rate = fits ? std::strtod(entry->value, nullptr) : 0.0;
      if (std::isfinite(rate) && rate >= 1.0) return Hertz(rate);
    }
  }
  return std::nullopt;
}

bool hasSound(const AVFormatContext& format) {
  for (unsigned i = 0; i < format.nb_streams; ++i) {
    if (format.streams[i]->codecpar->codec_type == AVMEDIA_TYPE_AUDIO) return true;
  }
  return false;
}

ClipInfo infoOf(const std::filesystem::path& path, AVFormatContext& format, AVStream& stream) {
  ClipInfo info;
  info.path = path;
  info.container = format.iformat->name;
  info.codec = avcodec_get_name(stream.codecpar->codec_id);
  info.clockwiseTurn_deg = clockwiseTurn(stream);
  const AVRational aspect = av_guess_sample_aspect_ratio(&format, &stream, nullptr);
  if (aspect.num > 0 && aspect.den > 0) {
    if (std::abs(std::log(av_q2d(aspect))) <= std::log(kWidestPixel)) {
      info.pixelAspect = av_q2d(aspect);
    } else {
      info.warnings.push_back(fmt::format(
          "the file says that its pixels are {}:{} wide to high, which cannot be; they are taken for square",
          aspect.num, aspect.den));
    }
  }
  info.width_px = static_cast<int>(std::lround(stream.codecpar->width * info.pixelAspect));
  info.height_px = stream.codecpar->height;
  if (info.clockwiseTurn_deg % 180 != 0) std::swap(info.width_px, info.height_px);
  const AVFieldOrder order = stream.codecpar->field_order;
  info.interlaced = order != AV_FIELD_UNKNOWN && order != AV_FIELD_PROGRESSIVE;
  info.topFieldFirst = order == AV_FIELD_TT || order == AV_FIELD_BT;
  info.hasSound = hasSound(format);
  info.writtenRate = writtenRate(format, stream);
  return info;
}

/// Bits that the file has for a pixel of a frame, at most: sound has some of them.
double bitsPerPixel(const ClipInfo& info, const ClipIndex& index) {
  const double pixels = info.width_px / info.pixelAspect * info.height_px;
  return 8.0 * static_cast<double>(info.fingerprint.size_bytes) /
         (pixels * static_cast<double>(index.frameCount()));
}

/// Newer codecs keep the same detail in half the bits.
double fewestBits(const std::string& codec) {
  constexpr double kFewest = 0.003;
  return codec == "hevc" || codec == "av1" || codec == "vp9" ? 0.5 * kFewest : kFewest;
}

std::vector<std::string> warningsOf(const ClipInfo& info, const ClipIndex& index) {
  std::vector<std::string> out;
  const double bits = bitsPerPixel(info, index);
  if (bits < fewestBits(info.codec))
    out.push_back(fmt::format(
        "coded so strongly ({:.4f} bits a pixel) that small details are gone: marks may not hold; "
        "use the file as the camera wrote it, or film with a higher bit rate",
        bits));
  if (const auto gap = index.longestGap()) {
    out.push_back(fmt::format("no frames for {:.2f} s after frame {}; every frame's own time stamp is used",
                              gap->length.value(), gap->after));
  } else if (index.uneven()) {
    out.emplace_back("the frames are not evenly spaced in time; every frame's own time stamp is used");
  }
  for (const ClipIndex::Restart& restart : index.restarts()) {
    const auto first = index.firstAtByte(restart.pos);
    out.push_back(
        fmt::format("the recorder's clock starts again at frame {}: how long it stopped is not known, so "
                    "measure before it and after it apart",
                    first));
  }
  if (info.interlaced) {
    out.emplace_back(
        "interlaced: every frame holds two pictures, half a frame apart in time; reading it field "
        "by field doubles the rate");
  }
  return out;
}

/// The index as it was kept, or from looking through the clip; then it is kept for the next time.
Result<ClipIndex> indexOf(av::OpenedInput& input, ClipInfo& info, const Clip::OpenOptions& options) {
  if (options.indexFolder.empty()) return scanPackets(*input.format, *input.stream, options.job);
  if (auto kept = keptIndex(options.indexFolder, info.fingerprint)) return std::move(*kept);
  auto index = scanPackets(*input.format, *input.stream, options.job);
  if (!index) return index;
  if (auto ok = keepIndex(options.indexFolder, info.fingerprint, *index); !ok)
    info.warnings.push_back(ok.error().message);
  return index;
}

}  // namespace

Result<std::shared_ptr<const Clip>> Clip::open(const std::filesystem::path& path) {
  return open(path, {});
}

Result<std::shared_ptr<const Clip>> Clip::open(const std::filesystem::path& path, OpenOptions options) {
  auto input = av::openInput(path);
  if (!input) return tl::unexpected(input.error());
  ClipInfo info = infoOf(path, *input->format, *input->stream);
  const auto fingerprint = fingerprintOf(path);
  if (!fingerprint) return tl::unexpected(fingerprint.error());
  info.fingerprint = *fingerprint;
  auto index = indexOf(*input, info, options);
  if (!index) return tl::unexpected(index.error());
  if (info.width_px > kLargestPicture_px || info.height_px > kLargestPicture_px) {
    return failure(ErrorCode::Unreadable,
                   fmt::format("{}: a picture of {} by {} pixels is too large", path.filename().string(),
                               info.width_px, info.height_px),
                   path.string());
  }
  if (index->frameCount() == 0 || info.width_px <= 0 || info.height_px <= 0) {
    return failure(ErrorCode::Unreadable, path.filename().string() + ": no frame can be read from it",
                   path.string());
  }
  for (std::string& warning : warningsOf(info, *index)) info.warnings.push_back(std::move(warning));
  return std::shared_ptr<const Clip>(new Clip(std::move(info), std::move(*index)));
}

std::shared_ptr<const Clip> Clip::byField(std::shared_ptr<const Clip> clip) {
  std::shared_ptr<Clip> out(new Clip(clip->info_, clip->index_.byField()));
  out->frames_ = std::move(clip);
  return out;
}

Result<std::unique_ptr<FrameSource>> Clip::reader(std::shared_ptr<const Clip> clip, ReaderOptions options) {
  if (!clip->frames_) return DecodedFrames::open(std::move(clip), options);
  auto frames = DecodedFrames::open(clip->frames_, options);
  if (!frames) return frames;
  return std::unique_ptr<FrameSource>(new FieldFrames(clip, std::move(*frames)));
}

}  // namespace fin
