# frozen_string_literal: true

require_relative "../lib/roost"

settings = Roost.settings
environment "production"
# The program that runs it may be gone before it listens to being asked to end.
parent = Process.ppid
after_booted { Process.kill(:TERM, Process.pid) unless Process.ppid == parent }
bind "tcp://#{settings.host}:#{settings.port}"
threads 1, settings.threads
workers settings.workers
silence_single_worker_warning
worker_timeout 30

if settings.workers.positive?
  preload_app!
  before_fork do
    Roost::Store::Database.disconnect
    # What has lived through four collections is old, and stays shared between the processes.
    4.times { GC.start }
    GC.compact
  end
  before_worker_boot do
    Roost::Web::WarmUp.own
    Roost::LIVE.start
  end
  before_worker_shutdown { Roost::LIVE.stop }
else
  after_booted { Roost::LIVE.start }
end

# More than any address takes (Roost::Web::Application::BODIES).
http_content_length_limit 210 * 1024 * 1024

# Requests that can't be read never reach the program; neither they nor their addresses, which may
# be a student's, go into the log.
lowlevel_error_handler do |_error, _env, status|
  [status,
   Roost::Web::Application::HEADERS.merge("content-type" => "text/plain; charset=utf-8"),
   ["That request could not be read.\n"]]
end
Puma::Client.prepend(Roost::Web::OwnBuffers)

Puma::ErrorLogger.prepend(Module.new do
  def title(said = {}) = "#{Time.now} #{said[:text]}: #{said[:error].class}"
  def debug(*) = nil
end)

# Open streams never end by themselves, so stopping does not wait for them.
force_shutdown_after 2
