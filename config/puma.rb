# frozen_string_literal: true

require_relative "../lib/roost"

settings = Roost.settings
environment "production"
bind "tcp://#{settings.host}:#{settings.port}"
threads 1, settings.threads
workers settings.workers
silence_single_worker_warning
worker_timeout 30

if settings.workers.positive?
  preload_app!
  before_fork { Roost::Store::Database.disconnect }
  before_worker_boot { Roost::LIVE.start }
  before_worker_shutdown { Roost::LIVE.stop }
else
  after_booted { Roost::LIVE.start }
end

# Open streams never end by themselves, so stopping does not wait for them.
force_shutdown_after 2
