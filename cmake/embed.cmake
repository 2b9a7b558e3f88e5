# Turns a text file into a C++ string literal, so that a table in data/ ships inside the core:
#   cmake -DINPUT=data/drills.csv -DOUTPUT=drills_csv.h -DNAME=drills_csv -P embed.cmake
file(READ ${INPUT} text)
file(WRITE ${OUTPUT} "#pragma once\nnamespace datrin::data {\ninline constexpr char ${NAME}[] = R\"~~~(${text})~~~\";\n}\n")
