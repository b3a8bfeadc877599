# frozen_string_literal: true

module Roost
  module Core
    # Names that are nobody's: an adjective and a bird. Each word was chosen to be kind beside any of
    # the other list.
    module MadeUpName
      ADJECTIVES = %w[Able Agile Airy Alert Amber Ample Apt Autumn Awake Balmy Bold Bonny Brave Breezy Bright Brisk Calm Candid
                      Careful Cheerful Chirpy Clear Clever Cloudy Coastal Cosy Curious Daring Dawn Dewy Distant Dusky Eager Early
                      Earnest Easy Evening Fair Faithful Famous Fearless Fleet Fond Free Fresh Friendly Gentle Glad Gleaming
                      Golden Graceful Happy Hardy Helpful Honest Hopeful Humble Keen Kind Lively Loyal Lucky Marsh Mellow Merry
                      Misty Modest Morning Neat Nimble Noble Northern Patient Placid Playful Polite Prompt Proud Quick Quiet
                      Radiant Ready Rested Roaming Rosy Sandy Sedge Serene Shining Silent Silver Smiling Snowy Snug Sociable
                      Southern Splendid Spry Starlit Steady Sunny Swift Tidal Tidy Trusty Upland Valiant Vivid Wandering Warm
                      Watchful Western Willing Windy Winter Wise Witty Woodland Zesty].freeze
      BIRDS = %w[Avocet Bittern Blackbird Bluethroat Brambling Bullfinch Bunting Bustard Buzzard Chaffinch Chiffchaff Cormorant
                 Crane Crossbill Curlew Dabchick Dipper Dotterel Dove Dunlin Dunnock Eagle Egret Eider Falcon Fieldfare Firecrest
                 Gadwall Gannet Garganey Godwit Goldcrest Goldeneye Goldfinch Goosander Goshawk Grebe Greenfinch Greenshank
                 Harrier Hawfinch Heron Hobby Ibis Jackdaw Jay Kestrel Kingfisher Kite Kittiwake Lapwing Linnet Magpie Mallard
                 Martin Merlin Moorhen Nightingale Nightjar Nuthatch Oriole Osprey Ouzel Owl Petrel Pheasant Pintail Pipit Plover
                 Pochard Ptarmigan Puffin Quail Raven Redpoll Redshank Redstart Redwing Robin Rook Ruff Sanderling Sandpiper Serin
                 Shearwater Shelduck Shoveler Siskin Skylark Smew Snipe Sparrow Spoonbill Starling Stonechat Swan Teal Tern Thrush
                 Treecreeper Turnstone Twite Wagtail Warbler Waxwing Wheatear Whimbrel Whinchat Whitethroat Wigeon
                 Woodlark Wren Wryneck].freeze

      # @param random [#random_number]
      # @return [String]
      def self.of(random) = [ADJECTIVES, BIRDS].map { |words| words[random.random_number(words.length)] }.join(" ")
    end
  end
end
