# frozen_string_literal: true

require_relative "lib/roost"

engine = Roost::Web::Application.engine
Roost::LIVE = engine
run Roost::Web::Application.build(engine)
