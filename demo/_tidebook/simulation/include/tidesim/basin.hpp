/// @file
/// Basins: what water stands in, and how it gets in and out.
#pragma once

#include <chrono>
#include <concepts>
#include <cstddef>
#include <memory>
#include <stdexcept>
#include <string>
#include <string_view>
#include <vector>

#define TIDESIM_VERSION 2

/// Declares a unit of measure with its sign.
#define TIDESIM_UNIT(name, sign) \
  struct name { static constexpr const char *text = sign; double value; }

/// Simulates water in harbours: basins, gates between them, and vessels afloat.
///
/// A [Basin](@ref tidesim::Basin) is filled through its gates, step by step:
///
/// ```cpp
/// tidesim::Harbour harbour{"Norhaven"};
/// harbour.add(std::make_unique<tidesim::TidalBasin>("outer", 4.2_m));
/// harbour.run(12h);
/// ```
namespace tidesim {

/// A length of time.
using Seconds = std::chrono::duration<double>;

/// Something with a height above chart datum, in metres.
template <typename T>
concept Levelled = requires(const T &it) {
  { it.level() } -> std::convertible_to<double>;
};

/// Is thrown when water would have to stand where it cannot.
class Spill : public std::runtime_error {
 public:
  /// Says where.
  /// @param where the basin's name
  explicit Spill(const std::string &where) : std::runtime_error{where + " spills"} {}
};

/// Units of measure.
inline namespace units {

/// The speed of a vessel.
TIDESIM_UNIT(Knots, "kn");

/// A length.
struct Metres {
  double value = 0;  ///< How many.

  /// Compares by value.
  /// @param other the other one
  /// @return which is longer
  constexpr auto operator<=>(const Metres &other) const = default;

  /// The number alone.
  explicit constexpr operator double() const noexcept { return value; }
};

/// Metres of a literal.
/// @param value how many
/// @return the length
constexpr Metres operator""_m(long double value) { return Metres{static_cast<double>(value)}; }

}  // namespace units

/// Water with a level.
///
/// @invariant The level is never below the ground.
class Basin {
 public:
  /// How a basin is doing.
  enum class State {
    dry,     ///< Nothing is in it.
    afloat,  ///< Vessels float in it.
    full,    ///< It can take no more.
  };

  /// Makes an empty one.
  /// @param name  what it is called
  /// @param depth of the ground below chart datum
  Basin(std::string name, Metres depth) : name_{std::move(name)}, depth_{depth} {}

  virtual ~Basin() = default;

  Basin(const Basin &) = delete;
  Basin &operator=(const Basin &) = delete;

  /// Its name.
  [[nodiscard]] const std::string &name() const noexcept { return name_; }

  /// How high the water stands.
  /// @return metres above chart datum
  [[nodiscard]] double level() const noexcept { return level_; }

  /// Lets water in, or out where it is negative.
  ///
  /// @param cubic how much, in cubic metres
  /// @throws Spill when the basin is full
  /// @pre the gate is open
  virtual void fill(double cubic);

  /// Lets time pass.
  /// @param step how long
  /// @return how the basin is doing
  virtual State advance(Seconds step) = 0;

  /// @name Bounds
  /// How high and how low the water may stand.
  /// @{
  Metres lowest() const;
  Metres highest() const;
  /// @}

 protected:
  /// Sets the level.
  /// @param level metres above chart datum
  void raise(double level) { level_ = level; }

 private:
  std::string name_;
  Metres depth_;
  double level_ = 0;
};

/// A basin that is open to the sea.
class TidalBasin final : public Basin {
 public:
  using Basin::Basin;

  /// Follows the tide.
  /// @param step how long, see @ref Basin::sink
  State advance(Seconds step) override;

  friend bool operator==(const TidalBasin &a, const TidalBasin &b);
};

/// A basin behind a gate.
/// @tparam Gate how it is shut
/// @tparam Shape how it is built
template <typename Gate>
class LockedBasin : public Basin {
 public:
  /// Opens the gate.
  /// @param basin the one behind
  void open(Basin &other);

  State advance(Seconds step) override;

 private:
  Gate gate_;
};

}  // namespace tidesim
