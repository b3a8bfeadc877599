# frozen_string_literal: true

module Roost
  module Live
    # Who listens at a stream.
    #
    # audience:: :seat, :screen or :desk; seat_id:: nil but for seats; address:: where it comes from
    # sign_in:: that it stands and falls with, or nil; key:: of this stream
    Recipient = Struct.new(:audience, :session_id, :seat_id, :address, :sign_in, :key, keyword_init: true)
  end
end
