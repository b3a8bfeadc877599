# frozen_string_literal: true

require_relative "../lib/roost"

# The process that looks back (Roost::Web::LookingBack): behind a Unix socket, few at a time, and after everything else.
settings = Roost.settings
environment "production"
# The program that runs it may be gone before it listens to being asked to end.
parent = Process.ppid
after_booted { Process.kill(:TERM, Process.pid) unless Process.ppid == parent }
bind "unix://#{settings.lookback_socket}?umask=0077"
threads 1, 3
workers 0
Process.setpriority(Process::PRIO_PROCESS, 0, 10)
http_content_length_limit 12 * 1024 * 1024
lowlevel_error_handler do |_error, _env, status|
  [status, { "content-type" => "text/plain; charset=utf-8" }, ["That request could not be read.\n"]]
end
Puma::ErrorLogger.prepend(Module.new do
  def title(said = {}) = "#{Time.now} #{said[:text]}: #{said[:error].class}"
  def debug(*) = nil
end)
force_shutdown_after 2
