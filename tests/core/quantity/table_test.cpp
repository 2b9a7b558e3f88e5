#include "quantity/table.h"

#include <gtest/gtest.h>

using namespace datrin;

TEST(Table, RowsColumnsAndWhatIsNotThere) {
  const auto t = read_table("# source\nup_to_mm,a\r\n3,1.5\n\n10,\n");
  ASSERT_EQ(t.rows.size(), 2U);
  EXPECT_EQ(t.column("a"), 1);
  EXPECT_EQ(t.column("b"), -1);
  EXPECT_EQ(t.number(0, 1), 1.5);
  EXPECT_FALSE(t.number(1, 1));
  EXPECT_FALSE(t.number(7, 1));
  EXPECT_EQ(t.row_up_to(3), 0);
  EXPECT_EQ(t.row_up_to(3.1), 1);
  EXPECT_EQ(t.row_up_to(11), -1);
}
