# frozen_string_literal: true

module Bench
  # What a phone loads on its first visit to a seat, compressed as it asks for it.
  module FirstLoad
    # @param server [Server]
    # @param path [String] of the page
    # @return [Float] kilobytes
    def self.of(server, path)
      http = Net::HTTP.new(Server::HOST, server.port)
      get = ->(path) { http.get(path, { "accept-encoding" => "gzip" }) }
      page = get.call(path)
      html = page["content-encoding"] == "gzip" ? Zlib.gunzip(page.body) : page.body
      assets = html.scan(%r{(?:href|src)="(/assets/[^"]+)"}).flatten
      styles = assets.grep(/\.css/).map { |path| http.get(path, { "accept-encoding" => "identity" }).body }
      # A font for some characters only is fetched where one of them is to be seen.
      faces = styles.flat_map { |style| style.scan(/@font-face\s*\{[^}]*\}/) }.reject { |face| face.include?("unicode-range") }
      fonts = faces.flat_map { |face| face.scan(/[\w-]+\.woff2/) }.map { |file| "/assets/#{file}" }
      ((page.body.bytesize + (assets | fonts).sum { |path| get.call(path).body.bytesize }) / 1000.0).round(1)
    end
  end
end
