int run_tests(int argc, char** argv);

int main(int argc, char** argv) { return run_tests(argc, argv); }
