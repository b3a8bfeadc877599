# frozen_string_literal: true

module Roost
  module Web
    # The first page: students type their code there, teachers find their way in.
    class FrontDoor < App
      include JoinPage

      get("/") { join_page }
    end
  end
end
