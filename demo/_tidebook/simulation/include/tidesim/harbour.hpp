/// @file
/// A harbour: basins that belong together.
#pragma once

#include "tidesim/basin.hpp"

namespace tidesim {

namespace detail {

/// What runs the steps.
class Clock;

/// The sum of levels.
template <Levelled... Ts>
constexpr double sum(const Ts &...all) {
  return (all.level() + ... + 0.0);
}

}  // namespace detail

/// The mean level of some basins.
///
/// @param all the basins
/// @return metres above chart datum
template <Levelled... Ts>
  requires(sizeof...(Ts) > 0)
[[nodiscard]] constexpr double mean(const Ts &...all) {
  return detail::sum(all...) / sizeof...(Ts);
}

/// A harbour.
class Harbour {
 public:
  /// What is told of each step.
  class Log {
   public:
    virtual ~Log() = default;

    /// Is called after each step.
    /// @param harbour the harbour
    virtual void step(const Harbour &harbour) = 0;
  };

  /// Makes one without basins.
  /// @param name what it is called
  explicit Harbour(std::string_view name);

  /// Takes a basin.
  /// @param basin the basin
  /// @return the same one
  Basin &add(std::unique_ptr<Basin> basin);

  /// Finds a basin by its name.
  /// @param name its name
  /// @return the basin, or a null pointer
  Basin *find(std::string_view name) const noexcept;

  /// Lets time pass in all basins.
  /// @param time how long
  void run(Seconds time);

  /// Lets time pass in all basins, and tells of each step.
  /// @param time how long
  /// @param log  is told
  void run(Seconds time, Log &log);

  /// The clock that runs it.
  detail::Clock &clock();

  /// How many basins there are.
  /// @deprecated Ask basins() for its size.
  [[deprecated("ask basins() for its size")]] std::size_t count() const;

  /// All basins.
  const std::vector<std::unique_ptr<Basin>> &basins() const;

#ifdef TIDESIM_PICTURES
  /// Draws it.
  /// @return a picture, see Picture::save()
  std::string draw() const;
#endif

 private:
  std::string name_;
  std::vector<std::unique_ptr<Basin>> basins_;
};

/// Moves a harbour's basins to another one.
/// @param from the harbour that loses them
/// @param[out] to the one that takes them
/// @todo keep their order
void merge(Harbour &from, Harbour &to);

}  // namespace tidesim
