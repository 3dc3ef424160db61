#include "tidesim/basin.hpp"
#include "tidesim/harbour.hpp"

namespace tidesim {

namespace {

/// How fast water runs through a gate, in metres per second.
constexpr double speed = 1.4;

}  // namespace

void Basin::fill(double cubic) {
  if (cubic < 0 && level_ <= 0) {
    throw Spill{name_};
  }
  raise(level_ + cubic * speed);
}

Basin::State TidalBasin::advance(Seconds step) {
  fill(step.count());
  return State::afloat;
}

Metres Basin::lowest() const { return depth_; }

Harbour::Harbour(std::string_view name) : name_{name} {}

Basin &Harbour::add(std::unique_ptr<Basin> basin) {
  basins_.push_back(std::move(basin));
  return *basins_.back();
}

/// Runs the basins of a harbour for some time.
void Harbour::run(Seconds time) {
  for (auto &basin : basins_) {
    basin->advance(time);
  }
}

}  // namespace tidesim
