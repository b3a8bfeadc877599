# frozen_string_literal: true

# Serves the page of a course on loopback; called by bin/coursepage.
require "fileutils"
require "optparse"
require "puma"
require "puma/server"
require_relative "site"

given = { url: ENV.fetch("ROOST_BASE_URL", "http://127.0.0.1:4567"), port: 4570 }
OptionParser.new do |options|
  options.on("--port N", Integer) { |port| given[:port] = port }
  options.on("--url URL") { |url| given[:url] = url }
end.parse!

folder = ENV.fetch("ROOST_VAR", File.expand_path("../../var", __dir__))
FileUtils.mkdir_p(folder)
posts = CoursePage::Posts.new(File.join(folder, "coursepage.json"))
server = Puma::Server.new(CoursePage::Site.new(posts, CoursePage::Preview.new(given[:url])))
begin
  server.add_tcp_listener("127.0.0.1", given[:port])
rescue Errno::EADDRINUSE
  abort "Port #{given[:port]} is in use. Choose another: bin/coursepage --port 4571"
end
%w[INT TERM].each { |signal| trap(signal) { server.stop } }
puts "The course page: http://127.0.0.1:#{given[:port]}"
puts "Start Amber Roost with ROOST_COURSE_PAGE=http://127.0.0.1:#{given[:port]} to post to it. Stop with Ctrl-C."
$stdout.flush
server.run.join
