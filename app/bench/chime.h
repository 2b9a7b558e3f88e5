#pragma once
// A short tone when the read-out stands where it should.

namespace datrin::app {

/// Played aside, by whatever plays sound on this machine; where nothing does, the bell.
void chime();

} // namespace datrin::app
