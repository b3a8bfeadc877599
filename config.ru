# frozen_string_literal: true

require_relative "lib/roost"

begin
  Roost::Store::Database.await
rescue Sequel::DatabaseConnectionError => e
  abort "· The web server stops until the database is back: #{e.message.lines.first.strip}"
end
Roost::Web::WarmUp.shared
engine = Roost::Web::Application.engine
Roost::LIVE = engine
run Roost::Web::Application.build(engine)
