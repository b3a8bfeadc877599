# frozen_string_literal: true

module Roost
  module Web
    # Where answers are watched as they come in, long texts are cut: sixty of the longest would be half
    # a megabyte at each change. The results have all of them. Included where the live surfaces are
    # rendered.
    module Brief
      MOST = 400 # characters

      def given_text(text)
        return text if text.length <= MOST

        "#{text[0, MOST].rstrip}… (#{text.length - MOST} more characters, in the results)"
      end
    end
  end
end
