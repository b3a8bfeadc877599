/* Many event streams, read by one process, so that what hears costs little beside what is measured.
   Usage: streams PORT < lines. First a line for each stream, "PATH[\tHEADER…]", and an empty one. Then, for each line
   "SECONDS\tMARK": reads until every stream has been sent MARK and a whole event since the last line, and says when the last
   one had, by the monotonic clock, and how many bytes the first one got, which follow. */
#include <arpa/inet.h>
#include <errno.h>
#include <fcntl.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/epoll.h>
#include <sys/resource.h>
#include <sys/socket.h>
#include <time.h>
#include <unistd.h>

enum { MOST = 8192, LINE = 8192, READ = 1 << 16 };

struct stream {
  int fd, heard;
  size_t length, room;
  char *text;
};

static struct stream streams[MOST];
static int many;

static void fail(const char *what) {
  perror(what);
  exit(1);
}

static double now(void) {
  struct timespec time;
  clock_gettime(CLOCK_MONOTONIC, &time);
  return (double)time.tv_sec + (double)time.tv_nsec / 1e9;
}

static void open_stream(int watched, unsigned short port, char *line) {
  struct stream *stream = &streams[many];
  struct sockaddr_in address = {.sin_family = AF_INET, .sin_port = htons(port), .sin_addr.s_addr = htonl(INADDR_LOOPBACK)};
  stream->fd = socket(AF_INET, SOCK_STREAM, 0);
  if (connect(stream->fd, (struct sockaddr *)&address, sizeof address) < 0) fail("connect");
  char *path = strsep(&line, "\t"), *header;
  dprintf(stream->fd, "GET %s HTTP/1.1\r\nHost: 127.0.0.1\r\nAccept: text/event-stream\r\n", path);
  while ((header = strsep(&line, "\t"))) dprintf(stream->fd, "%s\r\n", header);
  dprintf(stream->fd, "\r\n");
  fcntl(stream->fd, F_SETFL, O_NONBLOCK);
  struct epoll_event event = {.events = EPOLLIN, .data.u32 = (unsigned)many};
  if (epoll_ctl(watched, EPOLL_CTL_ADD, stream->fd, &event) < 0) fail("epoll_ctl");
  many++;
}

/* What has come; whether that ends with a whole event and has the mark in it. What comes after that is not kept. */
static int hear(struct stream *stream, const char *mark) {
  static char bytes[READ];
  ssize_t got;
  while ((got = read(stream->fd, bytes, READ)) > 0) {
    if (stream->heard) continue;
    if (stream->length + (size_t)got + 1 > stream->room) {
      stream->room = (stream->length + (size_t)got) * 2 + 1;
      stream->text = realloc(stream->text, stream->room);
      if (stream->text == NULL) fail("realloc");
    }
    memcpy(stream->text + stream->length, bytes, (size_t)got);
    stream->length += (size_t)got;
    stream->text[stream->length] = 0;
  }
  if (got == 0) {
    fprintf(stderr, "a stream ended\n");
    exit(1);
  }
  return stream->length > 1 && strcmp(stream->text + stream->length - 2, "\n\n") == 0 && strstr(stream->text, mark) != NULL;
}

static void wait_for_all(int watched, double seconds, const char *mark) {
  double ending = now() + seconds, last = 0;
  int left = many;
  for (int each = 0; each < many; each++) streams[each].heard = 0, streams[each].length = 0;
  while (left > 0) {
    struct epoll_event ready[256];
    int count = epoll_wait(watched, ready, 256, 1000);
    for (int each = 0; each < count; each++) {
      struct stream *stream = &streams[ready[each].data.u32];
      if (hear(stream, mark) && !stream->heard) stream->heard = 1, left--;
    }
    last = now();
    if (last > ending) {
      fprintf(stderr, "%d streams heard nothing of %s\n", left, mark);
      exit(1);
    }
  }
  printf("%.6f %zu\n", last, streams[0].length);
  fwrite(streams[0].text, 1, streams[0].length, stdout);
  fflush(stdout);
}

int main(int argc, char **argv) {
  static char line[LINE];
  if (argc != 2) return 2;
  struct rlimit files = {MOST, MOST};
  setrlimit(RLIMIT_NOFILE, &files);
  int watched = epoll_create1(0);
  while (fgets(line, LINE, stdin) && line[0] != '\n') {
    line[strcspn(line, "\n")] = 0;
    if (many < MOST) open_stream(watched, (unsigned short)atoi(argv[1]), line);
  }
  while (fgets(line, LINE, stdin)) {
    line[strcspn(line, "\n")] = 0;
    char *mark = strchr(line, '\t');
    if (mark == NULL) return 2;
    wait_for_all(watched, atof(line), mark + 1);
  }
  return 0;
}
