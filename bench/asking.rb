# frozen_string_literal: true

module Bench
  # Requests written by hand, with as little work here as can be.
  module Asking
    private

    # One request over a connection that stays open.
    # @param form [Hash, nil] what is sent
    # @return [Array(String, String)] head and body
    def ask(socket, line, form = nil, packed: false, cookie: nil)
      form &&= URI.encode_www_form(form)
      headers = "Host: #{Server::HOST}\r\n#{"Accept-Encoding: gzip\r\n" if packed}#{"Cookie: #{cookie}\r\n" if cookie}"
      headers += "Content-Type: application/x-www-form-urlencoded\r\nContent-Length: #{form.bytesize}\r\n" if form
      socket.write("#{line} HTTP/1.1\r\n#{headers}\r\n#{form}")
      text = +""
      text << socket.readpartial(65_536) until (ending = text.index("\r\n\r\n"))
      head = text.slice!(0, ending + 4)
      length = head[/^content-length: (\d+)/i, 1].to_i
      text << socket.readpartial(65_536) while text.bytesize < length
      [head, text]
    end
  end
end
