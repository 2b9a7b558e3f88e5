#include "app/aside.h"

#include "sheets/figures.h"
#include "store/failure_words.h"

namespace datrin::app {

QString failed_words(const std::exception_ptr& thrown) {
  std::string why = "the work came to an end it should not have come to";
  try {
    std::rethrow_exception(thrown);
  } catch (const std::exception& error) {
    why = store::failure_words(error);
  } catch (...) { // of a library that throws what is no std::exception
  }
  return sheets::sentence("it could not be worked out: " + why);
}

} // namespace datrin::app
