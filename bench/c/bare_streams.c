/* The baseline of fan-out: whoever asks with GET gets a stream; the body of a POST is written to each of them, one after
   the other, before it is answered. Usage: bare_streams PORT */
#include <arpa/inet.h>
#include <errno.h>
#include <poll.h>
#include <signal.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/epoll.h>
#include <sys/resource.h>
#include <sys/socket.h>
#include <unistd.h>

enum { MOST = 8192, LARGEST = 1 << 20 };

static int streams[MOST];
static int many;
static char request[LARGEST + 1];

static void fail(const char *what) {
  perror(what);
  exit(1);
}

static void write_all(int fd, const char *bytes, size_t length) {
  while (length > 0) {
    ssize_t written = write(fd, bytes, length);
    if (written < 0 && errno != EINTR) return; /* that one has gone */
    if (written > 0) {
      bytes += written;
      length -= (size_t)written;
    }
  }
}

/* Reads one request; 0 when the other end has closed. The bodies come whole or in parts. */
static int read_request(int fd, char **body, size_t *body_length) {
  size_t length = 0;
  for (;;) {
    ssize_t got = read(fd, request + length, LARGEST - length);
    if (got <= 0) return 0;
    length += (size_t)got;
    request[length] = 0;
    char *end = strstr(request, "\r\n\r\n");
    if (end == NULL) continue;
    char *header = strcasestr(request, "\r\ncontent-length:");
    *body = end + 4;
    *body_length = header && header < end ? strtoul(header + 17, NULL, 10) : 0;
    while (length < (size_t)(*body - request) + *body_length) {
      got = read(fd, request + length, LARGEST - length);
      if (got <= 0) return 0;
      length += (size_t)got;
    }
    return 1;
  }
}

static void serve(int fd, int watched) {
  static const char head[] = "HTTP/1.1 200 OK\r\nContent-Type: text/event-stream\r\n\r\n";
  static const char done[] = "HTTP/1.1 204 No Content\r\n\r\n";
  char *body;
  size_t length;
  if (!read_request(fd, &body, &length)) {
    close(fd);
  } else if (strncmp(request, "GET", 3) == 0) {
    epoll_ctl(watched, EPOLL_CTL_DEL, fd, NULL);
    write_all(fd, head, sizeof head - 1);
    if (many < MOST) streams[many++] = fd;
  } else {
    for (int each = 0; each < many; each++) write_all(streams[each], body, length);
    write_all(fd, done, sizeof done - 1);
  }
}

static void watch(int watched, int fd) {
  struct epoll_event event = {.events = EPOLLIN, .data.fd = fd};
  if (epoll_ctl(watched, EPOLL_CTL_ADD, fd, &event) < 0) fail("epoll_ctl");
}

int main(int argc, char **argv) {
  if (argc != 2) return 2;
  struct rlimit files = {MOST, MOST};
  setrlimit(RLIMIT_NOFILE, &files);
  signal(SIGPIPE, SIG_IGN);
  int listening = socket(AF_INET, SOCK_STREAM, 0), yes = 1, watched = epoll_create1(0);
  setsockopt(listening, SOL_SOCKET, SO_REUSEADDR, &yes, sizeof yes);
  struct sockaddr_in address = {.sin_family = AF_INET, .sin_port = htons((unsigned short)atoi(argv[1])),
                                .sin_addr.s_addr = htonl(INADDR_LOOPBACK)};
  if (bind(listening, (struct sockaddr *)&address, sizeof address) < 0) fail("bind");
  if (listen(listening, 1024) < 0) fail("listen");
  watch(watched, listening);
  for (;;) {
    struct epoll_event ready[64];
    int count = epoll_wait(watched, ready, 64, -1);
    for (int each = 0; each < count; each++) {
      if (ready[each].data.fd == listening) watch(watched, accept(listening, NULL, NULL));
      else serve(ready[each].data.fd, watched);
    }
  }
}
